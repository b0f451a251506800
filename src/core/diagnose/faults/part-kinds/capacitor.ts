import { groundNet } from '../../../board';
import { definePartKind } from '../part-kind';
import { faultOf } from '../fault';
import { bridge, shortsToGround, shunt } from '../modes';

const WEIGHT = { short: 0.6, leak: 0.15 };

/** What a leaky capacitor puts on its net, ohm: the middle of what is seen. Engineering estimate. */
const LEAK_OHM = 300;

export const capacitor = definePartKind({
  kind: 'capacitor',
  work: { minutes: 3, price: 0.1, harm: 0.002 },
  story: { liquid: 2 },
  faults(board, part) {
    const [a, b] = [part.pins['1'], part.pins['2']];
    const ground = groundNet(board);
    if (a === ground || b === ground) {
      const net = a === ground ? b : a;
      const leaks = faultOf(part, `leak/${net}`, `${net} leaking to ground`, WEIGHT.leak, [shunt(part, net, LEAK_OHM)]);
      return [...shortsToGround(board, part, WEIGHT.short), leaks];
    }
    return [faultOf(part, 'short', `shorted between ${a} and ${b}`, WEIGHT.short, [bridge(part, a, b)])];
  },
});
