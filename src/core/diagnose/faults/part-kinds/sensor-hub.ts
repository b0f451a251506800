import { definePartKind } from '../part-kind';
import { dead, shortsOfSupplies } from '../modes';

const WEIGHT = { short: 0.5, dead: 0.5 };

export const sensorHub = definePartKind({
  kind: 'sensorHub',
  work: { minutes: 20, price: 12, harm: 0.05 },
  story: {},
  faults: (_board, part) => [...shortsOfSupplies(part, WEIGHT.short, { pairs: false }), dead(part, WEIGHT.dead)],
});
