import { definePartKind } from '../part-kind';
import { open } from '../modes';

const WEIGHT = { open: 0.15 };

export const resistor = definePartKind({
  kind: 'resistor',
  work: { minutes: 3, price: 0.1, harm: 0.002 },
  story: { earlierRepair: 2 },
  faults: (_board, part) => [open(part, part.ref, 'open', 'open', WEIGHT.open)],
});
