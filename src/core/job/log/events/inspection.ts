import { z } from 'zod';
import { pinSchema, refSchema, sha256Schema } from './fields-schema';
import { defineEvent } from './definition';
import { without } from './without';

/** A ball as a picture or the bench says it is. */
const ballSchema = z.object({
  pin: pinSchema,
  state: z.enum(['good', 'missing', 'small', 'large', 'beside']),
  diameterMm: z.number().min(0).max(5),
  sdMm: z.number().min(0).max(5).nullable().describe('null where the picture does not say'),
  unclear: z.boolean().default(false).describe('left to the eye'),
  byHand: z.boolean().default(false).describe('set right by the bench'),
});

/** Balls looked over in a picture. */
const schema = z.object({
  kind: z.literal('inspection'),
  ref: refSchema,
  sha256: sha256Schema.describe('the picture, kept with the images'),
  name: z.string().max(200),
  width: z.number().int().positive().optional().describe('of the picture, px'),
  height: z.number().int().positive().optional(),
  toPicture: z.array(z.number()).length(8).describe('from pitches, the middle of the array at the origin, to pixels'),
  mmPerPx: z.number().positive(),
  balls: z.array(ballSchema).min(1).max(2500),
  bridges: z.array(z.tuple([pinSchema, pinSchema])).max(2500),
  crumbs: z
    .array(z.tuple([z.number(), z.number()]))
    .max(500)
    .describe('bits that do not belong there, in pitches'),
});
export type InspectionBody = z.infer<typeof schema>;

export const inspectionEvent = defineEvent<InspectionBody>({
  type: 'inspection',
  version: 2,
  schema,
  upcasters: [without('words', 'holds')],
  label: (_board, { ref }) => `picture of ${ref}`,
});
