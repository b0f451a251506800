import { definePartKind } from '../part-kind';
import { dead } from '../modes';

const WEIGHT = { dead: 0.5 };

export const crystal = definePartKind({
  kind: 'crystal',
  work: { minutes: 5, price: 1, harm: 0.005 },
  story: { fall: 4, bend: 2 },
  faults: (_board, part) => [dead(part, WEIGHT.dead)],
});
