import { z } from 'zod';
import { pinSchema, refSchema, sha256Schema } from './fields-schema';
import { defineEvent } from './definition';
import { without } from './without';

/** Pads of a cleaned site looked over in a picture. */
const schema = z.object({
  kind: z.literal('padLook'),
  ref: refSchema,
  sha256: sha256Schema.describe('the picture, kept with the images'),
  name: z.string().max(200),
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  toPicture: z.array(z.number()).length(8).describe('from mm in the package’s own frame to pixels'),
  pads: z
    .array(
      z.object({
        pin: pinSchema,
        state: z.enum(['even', 'lifted', 'uneven']),
        unclear: z.boolean(),
        byHand: z.boolean(),
      }),
    )
    .min(1)
    .max(2500),
  bridges: z.array(z.tuple([pinSchema, pinSchema])).max(2500),
});
export type PadLookBody = z.infer<typeof schema>;

export const padLookEvent = defineEvent<PadLookBody>({
  type: 'padLook',
  version: 2,
  schema,
  upcasters: [without('words', 'holds')],
  label: (_board, { ref }) => `picture of the pads of ${ref}`,
});
