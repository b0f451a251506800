import { definePartKind } from '../part-kind';
import { open } from '../modes';

const WEIGHT = { open: 4 };

export const fuse = definePartKind({
  kind: 'fuse',
  work: { minutes: 5, price: 0.5, harm: 0.002 },
  story: { unknownCharger: 2, earlierRepair: 1.5 },
  faults: (_board, part) => [open(part, part.ref, 'open', 'open', WEIGHT.open)],
});
