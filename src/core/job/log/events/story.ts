import { z } from 'zod';
import { HISTORY_FLAGS } from '../../../diagnose';
import { wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('story'),
  symptom: wordsSchema,
  history: z.array(z.enum(HISTORY_FLAGS)).max(HISTORY_FLAGS.length),
  dataMatters: z.boolean(),
  locked: z.boolean(),
  consent: z.boolean().describe('the owner agreed to risky steps'),
  pack: z.enum(['sound', 'swollen', 'none']),
  worth: z
    .number()
    .min(0)
    .max(1_000_000)
    .optional()
    .describe('what the device is worth to its owner, in the shop’s money'),
});
export type StoryBody = z.infer<typeof schema>;

export const storyEvent = defineEvent<StoryBody>({
  type: 'story',
  version: 1,
  schema,
  upcasters: [],
  label: () => 'the story',
});
