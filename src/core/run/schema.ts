import { z } from 'zod';
import { heatPlanSchema } from '../heat';

/** What the hand calls out during a run: how far it has come, and what says that it runs otherwise than computed. */
export const RUN_MARKS = ['softened', 'swims', 'seated', 'stuck', 'neighbourMoves', 'browns'] as const;
export type RunMark = (typeof RUN_MARKS)[number];
export const RUN_MARK_WORDS: Readonly<Record<RunMark, string>> = {
  softened: 'softened',
  swims: 'swims',
  seated: 'seated',
  stuck: 'not swimming',
  neighbourMoves: 'a neighbour moves',
  browns: 'smells or browns',
};

/** Marks that tell how hot it really is. */
export const RUN_SIGHTS = ['stuck', 'swims', 'neighbourMoves', 'browns'] as const satisfies readonly RunMark[];
export type RunSight = (typeof RUN_SIGHTS)[number];

export const RUN_ACTS = ['begin', 'next', 'back', 'mark', 'pause', 'resume', 'abort', 'end', 'correct'] as const;

/** One press of the pedal. Times are the bench's own clock: what was seen when, not when it was stored. */
export const runEventSchema = z.object({
  kind: z.literal('run'),
  run: z.string().min(1).max(40).describe('which run it belongs to'),
  atMs: z.number().describe('milliseconds since 1970 by the clock of the bench'),
  act: z.enum(RUN_ACTS),
  card: z.number().int().min(0).max(60).optional().describe('the card that is shown after it'),
  mark: z.enum(RUN_MARKS).optional(),
  plan: heatPlanSchema.optional().describe('what is run: at its beginning, and from a correction on'),
  stationId: z.string().max(80).optional(),
});
export type RunEvent = z.infer<typeof runEventSchema>;
