import { z } from 'zod';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('promise'),
  byAt: z.iso
    .datetime({ offset: true })
    .nullable()
    .describe('the moment that the owner was promised; null where it was taken back'),
});
export type PromiseBody = z.infer<typeof schema>;

export const promiseEvent = defineEvent<PromiseBody>({
  type: 'promise',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { byAt }) => (byAt === null ? 'promise taken back' : `promised for ${byAt.slice(0, 10)}`),
});
