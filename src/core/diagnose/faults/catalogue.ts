import type { Board } from '../../board';
import { longScrews, solderBridges, traceCracks } from './board-damage';
import type { Fault } from './fault';
import { jointFaults } from './joints';
import { OUTSIDE, OUTSIDE_THINGS, outsideFaultId } from './outside';
import { faultsOfPart } from './registry';

/** Relative odds of a bad charger, cable or pack, of damaged software, and of nothing at all, against the fault modes of parts. Engineering estimates. */
const WEIGHT = { thing: 1.5, nothing: 3, software: 0.5 };

/** All single faults of a board, and "outside" last. */
export function singleFaults(board: Board): Fault[] {
  const things = OUTSIDE_THINGS.map((what): Fault => ({
    id: outsideFaultId(what),
    ref: '',
    label: `Nothing on this board: the ${what}`,
    weight: WEIGHT.thing,
    effects: [{ kind: 'outside', what }],
    mendedBy: { kind: 'outside', what },
  }));
  const nothing: Fault = {
    id: OUTSIDE,
    ref: '',
    label: 'Nothing on this board',
    weight: WEIGHT.nothing,
    effects: [],
    mendedBy: { kind: 'nothing' },
  };
  // A board whose functions are all that fails: what it runs on was damaged, by the first fault or without one.
  const software: Fault = {
    id: 'software',
    ref: 'software',
    label: 'What the device runs on, damaged',
    weight: WEIGHT.software,
    effects: [{ kind: 'software' }],
    mendedBy: { kind: 'software' },
  };
  return [
    ...board.parts.flatMap((part) => faultsOfPart(board, part)),
    ...solderBridges(board),
    ...traceCracks(board),
    ...longScrews(board),
    ...jointFaults(board),
    software,
    ...things,
    nothing,
  ];
}
