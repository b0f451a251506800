import { z } from 'zod';
import { boardNameSchema, wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('decision'),
  action: z.enum(['replace', 'rewrite', 'mend', 'touchUp', 'clean', 'restore', 'stop']),
  ref: boardNameSchema.nullable().describe('the part; to mend the board the rail or the screw'),
  words: wordsSchema,
});
export type DecisionBody = z.infer<typeof schema>;

export const decisionEvent = defineEvent<DecisionBody>({
  type: 'decision',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { words }) => words,
});
