import type { Board, Part } from '../../../board';
import { definePartKind } from '../part-kind';
import { faultOf, type Effect, type Fault } from '../fault';
import { netsOf, shortsToGround, shunt } from '../modes';

const WEIGHT = { short: 2, leak: 1 };

export const esdArray = definePartKind({
  kind: 'esdArray',
  work: { minutes: 3, price: 0.5, harm: 0.005 },
  story: { unknownCharger: 3, liquid: 2 },
  faults: (board, part) => [...shortsToGround(board, part, WEIGHT.short), ...leaks(board, part)],
});

/** What a leaking array puts on its line, ohm. Common practice: kilohms, far from a short and far from open. */
const LEAK_PATH_OHM = 1500;

/** A leaking array: the line reads low, and a CC line with it no longer carries a conversation. */
function leaks(board: Board, part: Part): Fault[] {
  const nets = netsOf(board, part);
  return nets.map((net) => {
    const talk = board.ports.flatMap((port) =>
      port.sides
        .filter((s) => s.ccNet === net)
        .map((s): Effect => ({ kind: 'ccDead', ref: port.controller, side: s.side })),
    );
    return faultOf(part, `leak/${net}`, `${net} leaking to ground`, WEIGHT.leak / nets.length, [
      shunt(part, net, LEAK_PATH_OHM),
      { kind: 'leak', net },
      ...talk,
    ]);
  });
}
