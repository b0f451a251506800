import { z } from 'zod';
import { OUTSIDE_THINGS, outsideFaultId, type OutsideThing } from './faults';
import { measurementSchema, type Measurement } from './measurements/registry';
import { valueSchema, type Value } from './value';

/** A measurement with its value, and the board as it was then. */
export interface Reading {
  readonly measurement: Measurement;
  readonly value: Value;
  /** Parts that were off the board when it was taken. */
  readonly absent?: readonly string[];
  /** Parts that had been replaced before it was taken: their first faults no longer count. */
  readonly replaced?: readonly string[];
  /** What had been swapped for a known-good one. */
  readonly swapped?: readonly OutsideThing[];
}

/** Parts and faults that no longer count for a reading: replaced ones, and swapped ones by their fault id. */
export const clearedFaults = (r: Pick<Reading, 'replaced' | 'swapped'>): string[] => [
  ...(r.replaced ?? []),
  ...(r.swapped ?? []).map(outsideFaultId),
];

const name = z.string().min(1).max(24);
/** So many parts can be off or replaced in one reading. */
const MOST_PARTS = 200;

/** Readings as the command line takes them. */
export const readingSchema: z.ZodType<Reading> = z.object({
  measurement: measurementSchema,
  value: valueSchema,
  absent: z.array(name).max(MOST_PARTS).optional().describe('parts that were off the board'),
  replaced: z.array(name).max(MOST_PARTS).optional().describe('parts that had been replaced before'),
  swapped: z.array(z.enum(OUTSIDE_THINGS)).max(3).optional().describe('what had been swapped for a known-good one'),
});
