import { z } from 'zod';
import { defineEvent } from './definition';

const schema = z.object({ kind: z.literal('access'), access: z.enum(['closed', 'open', 'out']) });
export type AccessBody = z.infer<typeof schema>;

export const accessEvent = defineEvent<AccessBody>({
  type: 'access',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { access }) => ({ closed: 'housing closed', open: 'housing open', out: 'board out' })[access],
});
