import { z } from 'zod';
import { heatPlanSchema } from '../heat';

/** What the hand calls out during a run. */
export const RUN_MARKS = ['softened', 'swims', 'seated'] as const;
export type RunMark = (typeof RUN_MARKS)[number];
export const RUN_MARK_WORDS: Readonly<Record<RunMark, string>> = {
  softened: 'softened',
  swims: 'swims',
  seated: 'seated',
};

export const RUN_ACTS = ['begin', 'next', 'back', 'mark', 'pause', 'resume', 'abort', 'end'] as const;

/** One press of the pedal. Times are the bench's own clock: what was seen when, not when it was stored. */
export const runEventSchema = z.object({
  kind: z.literal('run'),
  run: z.string().min(1).max(40).describe('which run it belongs to'),
  atMs: z.number().describe('milliseconds since 1970 by the clock of the bench'),
  act: z.enum(RUN_ACTS),
  card: z.number().int().min(0).max(60).optional().describe('the card that is shown after it'),
  mark: z.enum(RUN_MARKS).optional(),
  plan: heatPlanSchema.optional().describe('what is run, at its beginning'),
  stationId: z.string().max(80).optional(),
});
export type RunEvent = z.infer<typeof runEventSchema>;
