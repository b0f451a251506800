import { definePartKind } from '../part-kind';
import { blown, dead, liftedPads, shortsOfSupplies } from '../modes';

const WEIGHT = { short: 1, dead: 2, blown: 1 };

export const mux = definePartKind({
  kind: 'mux',
  work: { minutes: 14, price: 6, harm: 0.02 },
  story: {},
  faults: (_board, part) => [
    ...shortsOfSupplies(part, WEIGHT.short, { pairs: false }),
    ...liftedPads(part),
    dead(part, WEIGHT.dead),
    blown(part, WEIGHT.blown),
  ],
});
