import type { NetName } from '../identities';
import { handiestPlace } from '../board';
import { aliveNow, type Belief } from './belief';
import { islandOf } from './islands';
import { accessFor, isOutsideTest, measurementId } from './measurement';
import { SHORT_BELOW_OHM } from './measurements/ground-resistance';
import type { Measurement } from './measurements/registry';
import type { Proposal, TestContext } from './next';

/** A rail gets power once a short of it is less likely than this. Engineering estimate. */
const SHORT_EXCLUDED = 0.04;

/**
 * The order of the bench, common practice: no voltage before the shorts of that rail are excluded, and the board stays in
 * while the outside is undone: a meter at a port, both ways round.
 */
export function inBenchOrder(belief: Belief, context: TestContext): (p: Pick<Proposal, 'measurement'>) => boolean {
  const { board } = belief.case.predictor;
  const taken = new Set(context.taken.map((r) => measurementId(r.measurement)));
  const lacks = (m: Measurement): boolean =>
    context.practice?.without?.includes(m.kind) !== true && !taken.has(measurementId(m));
  const outsideDone =
    context.access !== 'closed' ||
    !board.ports.every((port) => port.sides.some(({ side }) => lacks({ kind: 'usbMeter', port: port.id, side })));
  const shorted = shortChances(belief, context);
  return ({ measurement: m }) => {
    if (m.kind === 'railVoltage') {
      const net = board.rails.find((r) => r.id === m.rail)!.net;
      // A net that no probe reaches unpowered can only be measured with power.
      const canBeAsked =
        handiestPlace(board, net) !== undefined && context.practice?.without?.includes('groundResistance') !== true;
      if (canBeAsked && !taken.has(`ohm:${net}`) && shorted(net) >= SHORT_EXCLUDED) return false;
    }
    return outsideDone || isOutsideTest(m) || accessFor(m) === 'closed';
  };
}

/** Chance of a short at a net or at what is joined to it. */
function shortChances(belief: Belief, context: TestContext): (net: NetName) => number {
  const { board } = belief.case.predictor;
  const isAlive = aliveNow(context);
  const byNet = new Map<string, number>();
  belief.faults.forEach((f, i) => {
    if (!isAlive(f)) return;
    for (const e of f.effects)
      if (e.kind === 'shunt' && e.ohm < SHORT_BELOW_OHM) byNet.set(e.net, (byNet.get(e.net) ?? 0) + belief.marginal[i]);
  });
  return (net) => [...islandOf(board, net, context.absent)].reduce((sum, n) => sum + (byNet.get(n) ?? 0), 0);
}
