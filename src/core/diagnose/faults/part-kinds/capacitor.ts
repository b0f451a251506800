import { groundNet } from '../../../board';
import { definePartKind } from '../part-kind';
import { faultOf } from '../fault';
import { bridge, shortsToGround } from '../modes';

const WEIGHT = { short: 0.6 };

export const capacitor = definePartKind({
  kind: 'capacitor',
  work: { minutes: 3, price: 0.1, harm: 0.002 },
  story: { liquid: 2 },
  faults(board, part) {
    const [a, b] = [part.pins['1'], part.pins['2']];
    const ground = groundNet(board);
    if (a === ground || b === ground) return shortsToGround(board, part, WEIGHT.short);
    return [faultOf(part, 'short', `shorted between ${a} and ${b}`, WEIGHT.short, [bridge(part, a, b)])];
  },
});
