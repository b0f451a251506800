import { definePartKind } from '../part-kind';
import { faultOf } from '../fault';
import { bridge } from '../modes';

const WEIGHT = { open: 1.2, short: 0.6 };

export const mosfet = definePartKind({
  kind: 'mosfet',
  work: { minutes: 8, price: 1, harm: 0.005 },
  story: {},
  faults: (_board, part) => [
    faultOf(part, 'open', 'does not switch on', WEIGHT.open, [{ kind: 'dead', ref: part.ref }]),
    faultOf(part, 'short', 'shorted through', WEIGHT.short, [
      bridge(part, part.pins['2'], part.pins['3']),
      { kind: 'stuckOn', ref: part.ref },
    ]),
  ],
});
