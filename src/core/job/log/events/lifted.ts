import { z } from 'zod';
import { pinSchema, refSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('lifted'),
  ref: refSchema,
  pins: z.array(pinSchema).max(2500).describe('all pads that are off; none: all hold'),
});
export type LiftedBody = z.infer<typeof schema>;

export const liftedEvent = defineEvent<LiftedBody>({
  type: 'lifted',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { ref }) => `lifted pads of ${ref}`,
});
