import { z } from 'zod';
import { PART_KINDS } from '../board';
import { HISTORY_FLAGS } from './faults';
import { measurementTerm } from './measurements/old-names';
import { definitionOfKind, measurementKindNames, type MeasurementKind } from './measurements/registry';

/** What a bench may set for itself; what is left out keeps its default. */
export const practiceSchema = z.object({
  errorRates: z.partialRecord(z.enum(measurementKindNames), z.number().min(0.001).max(0.5)).default({}),
  without: z
    .array(z.enum(measurementKindNames))
    .max(measurementKindNames.length)
    .optional()
    .describe('kinds of tests that this bench has no instrument for: they are not proposed'),
  factors: z
    .partialRecord(z.enum(HISTORY_FLAGS), z.partialRecord(z.enum(PART_KINDS), z.number().min(0.1).max(20)))
    .default({})
    .describe('how much likelier the story makes each kind of part'),
  records: z
    .partialRecord(z.enum(PART_KINDS), z.number().min(0.1).max(20))
    .default({})
    .describe('how much likelier this bench has found each kind of part to be at fault'),
  prices: z
    .object({
      hour: z.number().min(1).max(1000).optional().describe('an hour at the bench'),
      parts: z.partialRecord(z.enum(PART_KINDS), z.number().min(0).max(10_000)).default({}),
    })
    .optional()
    .describe('what time and parts cost, in the shop’s money'),
  doubleShare: z.number().min(0).max(0.5).optional().describe('share of jobs with two faults at once'),
  unlisted: z
    .number()
    .min(0.1)
    .max(10)
    .optional()
    .describe('how much oftener than expected this bench finds a cause that no list held'),
  deadOnArrival: z.number().min(0).max(0.5).optional().describe('share of new parts that are bad out of the packet'),
});
export type Practice = z.input<typeof practiceSchema>;

/** The bench's practice, and what is particular to one job. */
export interface JobPractice extends Practice {
  /** Parts and faults that were worked on before the job came back. */
  readonly again?: readonly string[];
}

export const DEFAULT_PRACTICE: Practice = {};

/**
 * Share of jobs with two faults at once. Two at once are common (controller and connector, controller and image, filter
 * and mux); the figure is an engineering estimate.
 */
export const DOUBLE_SHARE = 0.15;
/** Share of new parts that are bad out of the packet. Engineering estimate. */
export const DEAD_ON_ARRIVAL = 0.02;

/** How often a reading of a kind is simply wrong; no single reading may rule a fault out. */
export const errorRate = (kind: MeasurementKind, practice: Practice): number =>
  practice.errorRates?.[kind] ?? definitionOfKind(kind).errorRate;

/** Version of the stored form; version 1 had no version, and the kinds their old names. */
const STORED_VERSION = 2;

/** The practice as it is stored now. */
export const practiceToStored = (practice: Practice): object => ({ version: STORED_VERSION, data: practice });

/** A stored practice of any version. Throws a ZodError where it cannot be read. */
export function practiceFromStored(stored: unknown): Practice {
  const envelope = z.object({ version: z.literal(STORED_VERSION), data: z.unknown() }).safeParse(stored);
  if (envelope.success) return practiceSchema.parse(envelope.data.data);
  const first = z.looseObject({ errorRates: z.record(z.string(), z.unknown()).default({}) }).parse(stored);
  const errorRates = Object.fromEntries(
    Object.entries(first.errorRates).map(([kind, rate]) => [measurementTerm(kind), rate]),
  );
  return practiceSchema.parse({ ...first, errorRates });
}
