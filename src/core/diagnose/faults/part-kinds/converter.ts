import { definePartKind } from '../part-kind';
import { dead, shortsOfSupplies } from '../modes';

const WEIGHT = { short: 0.8, dead: 1 };

export const converter = definePartKind({
  kind: 'converter',
  work: { minutes: 14, price: 4, harm: 0.02 },
  story: {},
  faults: (_board, part) => [...shortsOfSupplies(part, WEIGHT.short, { pairs: false }), dead(part, WEIGHT.dead)],
});
