import { z } from 'zod';
import { PART_KINDS } from '../board';
import { HISTORY_FLAGS } from './faults';
import type { Measurement } from './measurement';

export type MeasurementKind = Measurement['kind'];

/**
 * How often a reading of each kind is simply wrong: a slipped probe, a bad ground clip, a misread display, a tester that
 * is fooled. Engineering estimates that a bench may replace by its own; no single reading may rule a fault out.
 */
export const ERROR_RATE: Readonly<Record<MeasurementKind, number>> = {
  usb: 0.02,
  shape: 0.03,
  talk: 0.03,
  tester: 0.2,
  swap: 0.02,
  look: 0.02,
  pin: 0.03,
  joint: 0.03,
  drop: 0.03,
  ohm: 0.03,
  through: 0.03,
  volts: 0.02,
  works: 0.02,
  image: 0.005,
  lift: 0.03,
};

/** What each kind of reading is called where its error rate is set. */
export const KIND_WORDS: Readonly<Record<MeasurementKind, string>> = {
  usb: 'USB meter, one reading',
  shape: 'USB meter, watched',
  talk: 'capture of the CC lines',
  tester: 'quick port tester',
  swap: 'swap of charger, cable, pack',
  look: 'look into the port',
  pin: 'diode mode at the port',
  joint: 'diode mode at a joint',
  drop: 'diode mode on the board',
  ohm: 'resistance to ground',
  through: 'resistance through a part',
  volts: 'voltages, battery connector too',
  works: 'function tests',
  image: 'image checks',
  lift: 'resistance with a part off',
};

const KINDS = Object.keys(ERROR_RATE) as [MeasurementKind, ...MeasurementKind[]];

/** What a bench may set for itself; what is left out keeps its default. */
export const practiceSchema = z.object({
  errorRates: z.partialRecord(z.enum(KINDS), z.number().min(0.001).max(0.5)).default({}),
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

export const errorRate = (kind: MeasurementKind, practice: Practice): number =>
  practice.errorRates?.[kind] ?? ERROR_RATE[kind];
