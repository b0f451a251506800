import { z } from 'zod';
import { defineEvent } from './definition';

const schema = z.object({ kind: z.literal('pack'), state: z.enum(['in', 'out']) });
export type PackBody = z.infer<typeof schema>;

export const packEvent = defineEvent<PackBody>({
  type: 'pack',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { state }) => `pack ${state}`,
});
