import type { Board } from '../board';
import { longScrews, solderBridges, traceCracks } from './damage';
import { OUTSIDE, OUTSIDE_THINGS, WEIGHT, faultsOfPart, outsideFaultId, type Fault } from './faults';

/** All single faults of a board, and "outside" last. */
export function singleFaults(board: Board): Fault[] {
  const things = OUTSIDE_THINGS.map((what): Fault => ({
    id: outsideFaultId(what),
    ref: '',
    words: `Nothing on this board: the ${what}`,
    weight: WEIGHT.outsideThing,
    effects: [{ kind: 'outside', what }],
  }));
  const nothing: Fault = { id: OUTSIDE, ref: '', words: 'Nothing on this board', weight: WEIGHT.outside, effects: [] };
  return [
    ...board.parts.flatMap((part) => faultsOfPart(board, part)),
    ...solderBridges(board),
    ...traceCracks(board),
    ...longScrews(board),
    ...things,
    nothing,
  ];
}
