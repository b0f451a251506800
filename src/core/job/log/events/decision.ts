import type { PartRef } from '../../../identities';
import { z } from 'zod';
import type { Board } from '../../../board';
import { boardNameSchema } from './fields-schema';
import { defineEvent } from './definition';

const actionSchema = z.enum(['replace', 'rewrite', 'mend', 'touchUp', 'clean', 'restore']);
const nameSchema = boardNameSchema.describe('the part; to mend the board the rail or the screw');

const schema = z.object({
  kind: z.literal('decision'),
  action: z.enum([...actionSchema.options, 'stop']),
  ref: nameSchema.nullable(),
  with: z.object({ action: actionSchema, ref: nameSchema }).optional().describe('what is worked on together with it'),
  forGood: z.boolean().optional().describe('the part comes off and stays off'),
});
export type DecisionBody = z.infer<typeof schema>;

const OFF_FOR_GOOD = / off for good$/;

export const decisionEvent = defineEvent<DecisionBody>({
  type: 'decision',
  version: 2,
  schema,
  upcasters: [
    // A sentence was kept; that a part stays off was only in it.
    ({ words, ...rest }) => (OFF_FOR_GOOD.test(String(words)) ? { ...rest, forGood: true } : rest),
  ],
  label: decisionLabel,
});

/** The decision in words, as an instruction. */
export function decisionLabel(board: Board, { action, ref, forGood, ...decision }: DecisionBody): string {
  if (action === 'stop' || ref === null) return 'Stop: not worth what it needs';
  if (forGood) return `${ref} off for good`;
  const first = workLabel(board, action, ref);
  if (!decision.with) return first;
  const second = workLabel(board, decision.with.action, decision.with.ref);
  return `${first}, ${second.charAt(0).toLowerCase()}${second.slice(1)}`;
}

function workLabel(board: Board, action: z.infer<typeof actionSchema>, ref: PartRef): string {
  switch (action) {
    case 'replace':
      return `New ${ref}`;
    case 'rewrite':
      return `Rewrite the image of ${ref}`;
    case 'touchUp':
      return `Touch up the joints of ${ref}`;
    case 'clean':
      return `Clean the contacts of ${ref}`;
    case 'restore':
      return 'Restore what the device runs on; its data may be lost';
    case 'mend':
      return board.screws.some((s) => s.id === ref)
        ? `Mend the board at screw ${ref}`
        : `Lay a wire past the trace to ${ref}`;
  }
}
