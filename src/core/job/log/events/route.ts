import { z } from 'zod';
import { ROUTE_ACTIONS, VERDICTS } from '../../../parts';
import { supplyFromId, supplySchema } from '../../../stock';
import { refSchema, wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('route'),
  ref: refSchema.describe('the place'),
  typeId: z.string().min(1).max(80),
  supply: supplySchema,
  verdict: z.enum(VERDICTS),
  off: z.array(refSchema).max(12).describe('parts that come off for it, the place first'),
  actions: z
    .array(z.object({ kind: z.enum(ROUTE_ACTIONS), words: wordsSchema }))
    .max(20)
    .describe('in their order'),
  prove: z.array(z.string().max(80)).max(20).describe('functions that show whether it works'),
});
export type RouteBody = z.infer<typeof schema>;

export const routeEvent = defineEvent<RouteBody>({
  type: 'route',
  version: 2,
  schema,
  upcasters: [
    // Its name and a sentence were kept; the lot of a chip was only in the sentence.
    ({ offer, words, ...rest }) => {
      const supply = supplyFromId(String(offer));
      const lot = /of lot ([A-Z]{1,3}-\d+)/.exec(String(words))?.[1];
      return { ...rest, supply: supply.kind === 'chip' && lot ? { ...supply, lot } : supply };
    },
  ],
  label: (_board, { typeId, ref }) => `${typeId} for ${ref}`,
});
