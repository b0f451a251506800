import { definePartKind } from '../part-kind';
import { faultOf } from '../fault';
import { bridge, open, shortToGround } from '../modes';

const WEIGHT = { open: 0.6, bridge: 0.3, short: 0.15 };

export const lineFilter = definePartKind({
  kind: 'lineFilter',
  work: { minutes: 5, price: 0.5, harm: 0.005 },
  story: { earlierRepair: 3 },
  faults: (_board, part) => [
    open(part, `${part.ref}:a`, 'open-a', 'line a open', WEIGHT.open),
    open(part, `${part.ref}:b`, 'open-b', 'line b open', WEIGHT.open),
    faultOf(part, 'bridge', 'its lines bridged', WEIGHT.bridge, [bridge(part, part.pins['1'], part.pins['3'])]),
    ...['1', '3'].map((pin) => shortToGround(part, part.pins[pin], WEIGHT.short)),
  ],
});
