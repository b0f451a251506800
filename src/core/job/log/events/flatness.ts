import { z } from 'zod';
import { refSchema, wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('flatness'),
  ref: refSchema,
  readings: z
    .array(z.object({ xMm: z.number(), yMm: z.number(), heightMm: z.number() }))
    .min(3)
    .max(40),
  words: wordsSchema,
  holds: z.boolean(),
});
export type FlatnessBody = z.infer<typeof schema>;

export const flatnessEvent = defineEvent<FlatnessBody>({
  type: 'flatness',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { ref }) => `flatness of ${ref}`,
});
