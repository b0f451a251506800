import { z } from 'zod';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('soak'),
  act: z.enum(['start', 'restart', 'end']),
  minutes: z.number().min(1).max(1440).optional().describe('how long, at its start'),
});
export type SoakBody = z.infer<typeof schema>;

export const soakEvent = defineEvent<SoakBody>({
  type: 'soak',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { act, minutes }) =>
    ({ start: `soak of ${minutes} min`, restart: 'restart in the soak', end: 'end of the soak' })[act],
});
