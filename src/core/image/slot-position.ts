import { memoriesOf, type Board } from '../board';
import type { ImageFamily } from './family';

/** The byte that means the position of the board's slot; none where several slots share the memory, or nobody knows. */
export function slotPosition(board: Board, { positions = {} }: ImageFamily): number | undefined {
  const [memory] = memoriesOf(board);
  const names = new Set(board.slots.filter((s) => s.image === memory).map((s) => s.position));
  const [name] = names;
  return names.size === 1 && name !== undefined ? positions[name] : undefined;
}
