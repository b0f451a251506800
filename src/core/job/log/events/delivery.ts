import { z } from 'zod';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('delivery'),
  what: z.string().min(1).max(120).describe('what the job waits for: a chip, a donor board, an answer'),
  byAt: z.iso.datetime({ offset: true }).nullable().describe('when it is expected; null where it came'),
});
export type DeliveryBody = z.infer<typeof schema>;

export const deliveryEvent = defineEvent<DeliveryBody>({
  type: 'delivery',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { what, byAt }) =>
    byAt === null ? `${what} is here` : `waits for ${what}, expected ${byAt.slice(0, 10)}`,
});
