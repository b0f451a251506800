import { z } from 'zod';
import { refSchema, sealSchema, sha256Schema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({ kind: z.literal('imageWritten'), ref: refSchema, sha256: sha256Schema, after: sealSchema });
export type ImageWrittenBody = z.infer<typeof schema>;

export const imageWrittenEvent = defineEvent<ImageWrittenBody>({
  type: 'imageWritten',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { ref }) => `image written to ${ref}`,
});
