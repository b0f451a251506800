import { z } from 'zod';
import { boardNameSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('mended'),
  what: boardNameSchema.describe('the rail whose trace was mended, or the screw whose damage was'),
});
export type MendedBody = z.infer<typeof schema>;

export const mendedEvent = defineEvent<MendedBody>({
  type: 'mended',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { what }) => `mended ${what}`,
});
