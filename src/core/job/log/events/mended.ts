import { z } from 'zod';
import { boardNameSchema } from './fields-schema';
import { clearedTarget } from '../../../diagnose';
import type { Board } from '../../../board';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('mended'),
  what: boardNameSchema.describe(
    'the rail whose trace was mended, the screw whose damage was, or what was touched up, cleaned or restored, by key',
  ),
});
export type MendedBody = z.infer<typeof schema>;

export const mendedEvent = defineEvent<MendedBody>({
  type: 'mended',
  version: 1,
  schema,
  upcasters: [],
  label: (board, { what }) => mendedWords(board, what),
});

function mendedWords(board: Board, what: string): string {
  const target = clearedTarget(board, what);
  if (target?.kind === 'joints') return `joints of ${target.ref} touched up`;
  if (target?.kind === 'contacts') return `contacts of ${target.ref} cleaned`;
  return target?.kind === 'software' ? 'restored what it runs on' : `mended ${what}`;
}
