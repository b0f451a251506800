import { partByRef, type Board } from '../../board';
import { clearedTarget, targetName, type BoardTarget } from '../../diagnose';

/** A part that was replaced, an image that was written, or damage that was mended, in a few words. */
export function mendedLabel(board: Board, key: string): string {
  const target = clearedTarget(board, key);
  switch (target?.kind) {
    case 'image':
      return `image of ${target.ref} rewritten`;
    case 'part':
      return `${target.ref} ${partByRef(board, target.ref)!.what} replaced`;
    case 'joints':
      return `joints of ${target.ref} touched up`;
    case 'contacts':
      return `contacts of ${target.ref} cleaned`;
    case 'software':
      return 'what it runs on restored';
    default:
      return `mended at ${key}`;
  }
}

/** Everything that was worked on, each once, in the order in which it first was. */
export const mendedLabels = (board: Board, keys: readonly string[]): string[] => [
  ...new Set(keys.map((key) => mendedLabel(board, key))),
];

/** The part, rail or screw that a cleared target is about; the key itself where the board no longer has it. */
export function workedOn(board: Board, key: string): string {
  const target = clearedTarget(board, key);
  return target ? targetName(target as BoardTarget) : key;
}
