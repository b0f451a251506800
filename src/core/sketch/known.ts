import type { PartRef } from '../identities';
import type { Assumption, Board, Part } from '../board';
import { USUAL_SIGNAL_DROP_V } from './levels';

/** The board with something changed at one part. */
export const changed = (board: Board, ref: PartRef, change: Partial<Part>): Board => ({
  ...board,
  parts: board.parts.map((p) => (p.ref === ref ? { ...p, ...change } : p)),
});

/** What is assumed of a part, with one thing less. */
export const known = ({ assumed = [] }: Part, what: Assumption): Pick<Part, 'assumed'> => {
  const left = assumed.filter((a) => a !== what);
  return { assumed: left.length > 0 ? left : undefined };
};

/** A board of which one thing more is known. */
export const learned = (board: Board, what: NonNullable<Board['assumed']>[number]): Board => {
  const left = (board.assumed ?? []).filter((a) => a !== what);
  return { ...board, assumed: left.length > 0 ? left : undefined };
};

/** A net of which nothing is known but that it is one. */
export const SIGNAL = {
  role: 'signal',
  diodeV: USUAL_SIGNAL_DROP_V[0],
  diodeWithinV: USUAL_SIGNAL_DROP_V[1],
  lowByNature: false,
} as const;
