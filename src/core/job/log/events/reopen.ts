import { z } from 'zod';
import { wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('reopen'),
  symptom: wordsSchema.describe('with what it came back, in the owner’s words'),
});
export type ReopenBody = z.infer<typeof schema>;

export const reopenEvent = defineEvent<ReopenBody>({
  type: 'reopen',
  version: 1,
  schema,
  upcasters: [],
  label: () => 'it came back',
});
