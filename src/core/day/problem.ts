import { z } from 'zod';

const minutes = z.number().min(0).max(100_000);

export const dayStepSchema = z.object({
  id: z.string().min(1).max(60),
  words: z.string().max(200).default(''),
  minutes: minutes.describe('how long it takes, expected'),
  sdLog: z.number().min(0).max(3).default(0.4).describe('spread of the logarithm of its minutes'),
  passive: z.boolean().default(false).describe('runs by itself: baking, cooling, soaking, charging'),
  needs: z
    .array(z.string().max(40))
    .default([])
    .describe(
      'resources that it occupies while it lasts, such as hot air, plate, microscope, oven, programmer, supply',
    ),
  role: z.enum(['apprentice', 'technician', 'lead']).default('apprentice').describe('the least who may do it'),
  chance: z.number().min(0).max(1).default(1).describe('chance that it is needed'),
  urgent: z
    .boolean()
    .optional()
    .describe('a danger while it stands: done before everything else, if a job begins with it'),
  pinned: z
    .object({ startMin: minutes, person: z.string().max(60).optional() })
    .optional()
    .describe('begun already, or put there by hand: minutes from now'),
});
export type DayStep = z.infer<typeof dayStepSchema>;

export const dayJobSchema = z.object({
  id: z.string().min(1).max(60),
  words: z.string().max(200).default(''),
  releaseMin: minutes.default(0).describe('not before: a delivery, an owner'),
  dueMin: minutes.nullable().default(null).describe('promised for, minutes from now'),
  weight: z.number().positive().max(1000).default(1),
  steps: z.array(dayStepSchema).min(1).max(40).describe('one after the other'),
});
export type DayJob = z.infer<typeof dayJobSchema>;

export const dayProblemSchema = z.object({
  jobs: z.array(dayJobSchema).max(200),
  people: z
    .array(z.object({ id: z.string().min(1).max(60), role: z.enum(['apprentice', 'technician', 'lead']) }))
    .min(1)
    .max(20),
  capacity: z
    .record(z.string(), z.number().int().min(0).max(50))
    .default({})
    .describe('how many of each resource; one where it is not said'),
  closed: z
    .array(z.tuple([minutes, minutes]))
    .default([])
    .describe('from and to, minutes from now: nobody works; what is passive goes on'),
});
export type DayProblem = z.infer<typeof dayProblemSchema>;

/** A step at its place in the day, minutes from now. */
export interface Slot {
  readonly job: string;
  readonly step: string;
  readonly startMin: number;
  readonly endMin: number;
  /** Who does it; null for what runs by itself. */
  readonly person: string | null;
}

/** What a day costs: promises broken first, then owners' waiting, then idle hands. */
export interface DayCost {
  /** Σ weight · minutes after the promise. */
  readonly late: number;
  /** Σ weight · minutes to the end of each job. */
  readonly waiting: number;
  /** Minutes until all is done. */
  readonly endMin: number;
  /** One figure: what is compared. */
  readonly total: number;
}

/** A minute after the promise counts so much more than a minute of waiting, and a minute of the whole day so much less. Estimates. */
const LATE_WEIGHT = 20;
const END_WEIGHT = 0.01;

/** @param ends when each job ends, in their order, minutes from now. */
export function costOf(jobs: readonly DayJob[], ends: readonly number[]): DayCost {
  let [late, waiting, endMin] = [0, 0, 0];
  for (let j = 0; j < jobs.length; j++) {
    const { dueMin, weight, releaseMin } = jobs[j];
    const end = ends[j];
    if (dueMin !== null) late += weight * Math.max(0, end - dueMin);
    waiting += weight * (end - releaseMin);
    endMin = Math.max(endMin, end);
  }
  return { late, waiting, endMin, total: LATE_WEIGHT * late + waiting + END_WEIGHT * endMin };
}

export { LATE_WEIGHT, END_WEIGHT };
