import { definePartKind } from '../part-kind';
import { open } from '../modes';

const WEIGHT = { open: 0.8 };

export const coil = definePartKind({
  kind: 'coil',
  work: { minutes: 8, price: 1, harm: 0.005 },
  story: { fall: 4, bend: 2 },
  faults: (_board, part) => [open(part, part.ref, 'open', 'joint cracked open', WEIGHT.open)],
});
