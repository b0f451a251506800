import { z } from 'zod';
import { sha256Schema, wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('picture'),
  sha256: sha256Schema.describe('the picture as it was masked; nothing else of it is kept'),
  words: wordsSchema.describe('what it shows'),
  masks: z.number().int().min(0).max(1000).describe('private areas that were covered'),
});
export type PictureBody = z.infer<typeof schema>;

export const pictureEvent = defineEvent<PictureBody>({
  type: 'picture',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { words }) => `picture: ${words}`,
});
