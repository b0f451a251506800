import { z } from 'zod';
import { refSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('partOn'),
  ref: refSchema,
  fresh: z.boolean().describe('a new part, not the one taken off'),
});
export type PartOnBody = z.infer<typeof schema>;

export const partOnEvent = defineEvent<PartOnBody>({
  type: 'partOn',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { ref, fresh }) => `${fresh ? 'new' : 'same'} ${ref} on`,
});
