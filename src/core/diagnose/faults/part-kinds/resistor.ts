import { definePartKind } from '../part-kind';
import { faultOf } from '../fault';
import { open } from '../modes';

const WEIGHT = { open: 0.15, drift: 0.08 };

/** By how much a resistor that left its value has risen: the middle of what is seen. Engineering estimate. */
const DRIFT_FACTOR = 5;

export const resistor = definePartKind({
  kind: 'resistor',
  work: { minutes: 3, price: 0.1, harm: 0.002 },
  story: { earlierRepair: 2 },
  faults: (_board, part) => [
    open(part, part.ref, 'open', 'open', WEIGHT.open),
    faultOf(part, 'drift', 'far above its value', WEIGHT.drift, [
      { kind: 'drift', element: part.ref, ref: part.ref, factor: DRIFT_FACTOR },
    ]),
  ],
});
