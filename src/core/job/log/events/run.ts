import type { z } from 'zod';
import { runEventSchema } from '../../../run';
import { defineEvent } from './definition';

export type RunBody = z.infer<typeof runEventSchema>;

/** One press of the pedal; its form belongs to the run's own clock. */
export const runEvent = defineEvent<RunBody>({
  type: 'run',
  version: 1,
  schema: runEventSchema,
  upcasters: [],
  label: (_board, { mark, act }) => `run: ${mark ?? act}`,
});
