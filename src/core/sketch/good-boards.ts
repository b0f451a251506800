import type { NetName } from '../identities';
import { partByRef, railOfNet, type Board } from '../board';
import type { ReferenceStats, ReferenceTable } from '../reference';
import type { BoardEdit } from './board-edit';
import { applyBoardEdit } from './edit';

/** A rail whose window is wider is one whose level nobody has read. */
const LOOSEST_LEVEL = 0.15;

const isUnknown = (board: Board, net: NetName): boolean =>
  board.parts.some((p) => (p.loadsWithin?.[net] ?? 1) > 1 && p.loadsOhm[net] !== undefined);

/** What a reading of good boards says of a board that does not know it; nothing where the file has its own figure. */
function editFor(board: Board, point: string, { mean }: ReferenceStats): BoardEdit | undefined {
  const [kind, first, second] = point.split(':');
  if (!(mean > 0)) return undefined;
  if (kind === 'ohm') return isUnknown(board, first) ? { kind: 'sound', net: first, ohm: mean } : undefined;
  if (kind === 'volts') {
    const rail = board.rails.find((r) => r.id === first);
    const isLoose =
      rail?.expect.kind === 'fixed' && rail.tolerance > LOOSEST_LEVEL && railOfNet(board, rail.net)?.id === rail.id;
    return rail && isLoose ? { kind: 'level', net: rail.net, volts: mean } : undefined;
  }
  const net = kind === 'drop' ? first : kind === 'pin' ? partByRef(board, first)?.pins[second] : undefined;
  return net !== undefined && board.nets[net]?.diodeWithinV !== undefined
    ? { kind: 'sound', net, dropV: mean }
    : undefined;
}

/** The last of each board: a job asks for the same again and again, and predictions are kept by the object. */
const narrowed = new WeakMap<Board, { readonly references: string; readonly board: Board }>();

/**
 * A board with what good boards of its revision read in place of what was not known: loads, drops, levels. What the file knows stays
 * as it is; a reading that does not fit it is passed over.
 */
export function withGoodBoards(board: Board, references: ReferenceTable): Board {
  const points = Object.keys(references);
  if (points.length === 0) return board;
  const name = JSON.stringify(references);
  const known = narrowed.get(board);
  if (known?.references === name) return known.board;
  let next = board;
  for (const point of points) {
    const edit = editFor(next, point, references[point]);
    const made = edit && applyBoardEdit(next, edit);
    if (made?.ok) next = made.value;
  }
  narrowed.set(board, { references: name, board: next });
  return next;
}
