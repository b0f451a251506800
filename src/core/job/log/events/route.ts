import { z } from 'zod';
import { ROUTE_ACTIONS, VERDICTS } from '../../../parts';
import { refSchema, wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('route'),
  ref: refSchema.describe('the place'),
  typeId: z.string().min(1).max(80),
  offer: z.string().min(1).max(80).describe('where the chip comes from: C-105, L-12, D-3/U13, buy heron-pd-r2'),
  words: wordsSchema,
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
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { typeId, ref }) => `${typeId} for ${ref}`,
});
