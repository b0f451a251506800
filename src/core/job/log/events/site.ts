import { z } from 'zod';
import { refSchema, wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({ kind: z.literal('site'), ref: refSchema, words: wordsSchema });
export type SiteBody = z.infer<typeof schema>;

export const siteEvent = defineEvent<SiteBody>({
  type: 'site',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { ref }) => `site of ${ref}`,
});
