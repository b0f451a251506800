import { definePartKind } from '../part-kind';
import { dead, liftedPads, shortsOfSupplies } from '../modes';

const WEIGHT = { short: 2, dead: 4 };

export const chargeController = definePartKind({
  kind: 'chargeController',
  work: { minutes: 14, price: 7, harm: 0.02 },
  story: {},
  faults: (_board, part) => [
    ...shortsOfSupplies(part, WEIGHT.short, { pairs: false }),
    ...liftedPads(part),
    dead(part, WEIGHT.dead),
  ],
});
