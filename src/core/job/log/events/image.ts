import { z } from 'zod';
import { sealSchema, sha256Schema } from './fields-schema';
import { defineEvent } from './definition';

/** `before`: what a chip held when it was written over. */
export const IMAGE_ROLES = ['patient', 'donor', 'merged', 'before'] as const;
export type ImageRole = (typeof IMAGE_ROLES)[number];

/** Regions and settings of one image. */
const MOST_REGIONS = 1000;

/** What a merged image was made of, so that it can be made again. */
const madeOfSchema = z.object({
  patient: sha256Schema,
  donor: sha256Schema.optional(),
  family: z.string().max(120).describe('the map with its revision, as heron-pd/2'),
  base: z.enum(['patient', 'donor']),
  take: z
    .record(z.string().max(80), z.enum(['patient', 'donor', 'copy', 'computed']))
    .refine((r) => Object.keys(r).length <= MOST_REGIONS),
  set: z.record(z.string().max(80), z.number().int().min(0)).refine((r) => Object.keys(r).length <= MOST_REGIONS),
  reason: z.enum(['pairMoves', 'sameUnit']).optional(),
});

const schema = z.object({
  kind: z.literal('image'),
  role: z.enum(IMAGE_ROLES),
  sha256: sha256Schema,
  name: z.string().max(200),
  sizeBytes: z.number().int().min(0),
  sound: z.boolean(),
  madeOf: madeOfSchema.optional(),
  after: sealSchema,
});
export type ImageBody = z.infer<typeof schema>;

export const imageEvent = defineEvent<ImageBody>({
  type: 'image',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { role, name }) => `${role} image ${name}`,
});
