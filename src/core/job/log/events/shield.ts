import { z } from 'zod';
import { boardNameSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({ kind: z.literal('shield'), id: boardNameSchema.describe('the shield'), off: z.boolean() });
export type ShieldBody = z.infer<typeof schema>;

export const shieldEvent = defineEvent<ShieldBody>({
  type: 'shield',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { id, off }) => `shield ${id} ${off ? 'off' : 'on'}`,
});
