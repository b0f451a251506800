import { partByRef, type Board } from '../board';

/** A part that was replaced, an image that was written, or damage that was mended, in a few words. */
export function mendedWords(board: Board, name: string): string {
  const [ref, fault] = name.split('/');
  if (fault !== undefined) return `image of ${ref} rewritten`;
  const part = partByRef(board, ref);
  return part ? `${ref} ${part.what} replaced` : `mended at ${ref}`;
}
