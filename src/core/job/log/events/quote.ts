import { z } from 'zod';
import { defineEvent } from './definition';

const money = z.number().min(0).max(1_000_000);

/** What became of it; what runs out is told by whoever runs the shop. */
export const QUOTE_STATES = ['sent', 'accepted', 'refused', 'expired'] as const;

const schema = z.object({
  kind: z.literal('quote'),
  state: z.enum(QUOTE_STATES),
  price: money.describe('as told to the owner, tax included'),
  low: money.optional(),
  high: money.optional().describe('eight of ten lie between low and high'),
  successChance: z.number().min(0).max(1).optional(),
});
export type QuoteBody = z.infer<typeof schema>;

export const quoteEvent = defineEvent<QuoteBody>({
  type: 'quote',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { state, price }) => `quote of ${price} ${state}`,
});
