import { z } from 'zod';
import { refSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({ kind: z.literal('partOff'), ref: refSchema });
export type PartOffBody = z.infer<typeof schema>;

export const partOffEvent = defineEvent<PartOffBody>({
  type: 'partOff',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { ref }) => `${ref} off`,
});
