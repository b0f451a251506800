import { definePartKind } from '../part-kind';
import { faultOf } from '../fault';
import { dead, shortsOfSupplies } from '../modes';

const WEIGHT = { short: 1.5, dead: 1.5, load: 0.8 };

export const processor = definePartKind({
  kind: 'processor',
  work: { minutes: 45, price: 60, harm: 0.15 },
  story: { fall: 1.5, bend: 4 },
  faults: (_board, part) => [
    ...shortsOfSupplies(part, WEIGHT.short, { pairs: false }),
    dead(part, WEIGHT.dead),
    faultOf(part, 'load', 'takes current at once', WEIGHT.load, [{ kind: 'load', ref: part.ref }]),
  ],
});
