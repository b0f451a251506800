import { definePartKind } from '../part-kind';
import { dead } from '../modes';

const WEIGHT = { dead: 0.7 };

export const batteryConnector = definePartKind({
  kind: 'batteryConnector',
  work: { minutes: 25, price: 3, harm: 0.02 },
  story: { liquid: 3 },
  faults: (_board, part) => [dead(part, WEIGHT.dead)],
});
