import { z } from 'zod';
import { refSchema } from './fields-schema';
import { defineEvent } from './definition';
import { without } from './without';

const schema = z.object({
  kind: z.literal('flatness'),
  ref: refSchema,
  readings: z
    .array(z.object({ xMm: z.number(), yMm: z.number(), heightMm: z.number() }))
    .min(3)
    .max(40),
});
export type FlatnessBody = z.infer<typeof schema>;

export const flatnessEvent = defineEvent<FlatnessBody>({
  type: 'flatness',
  version: 2,
  schema,
  upcasters: [without('words', 'holds')],
  label: (_board, { ref }) => `flatness of ${ref}`,
});
