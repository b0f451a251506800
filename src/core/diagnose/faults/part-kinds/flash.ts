import { definePartKind } from '../part-kind';
import { faultOf } from '../fault';
import { shortsOfSupplies } from '../modes';

const WEIGHT = { image: 4, dead: 1, short: 0.5 };

export const flash = definePartKind({
  kind: 'flash',
  work: { minutes: 8, price: 2, harm: 0.01 },
  story: {},
  faults: (_board, part) => [
    faultOf(
      part,
      'image',
      'its image corrupted or blank',
      WEIGHT.image,
      [{ kind: 'imageBad', ref: part.ref }],
      // The memory is sound: what it holds is written anew.
      { kind: 'image', ref: part.ref },
    ),
    faultOf(part, 'dead', 'dead inside', WEIGHT.dead, [
      { kind: 'imageBad', ref: part.ref },
      { kind: 'dead', ref: part.ref },
    ]),
    ...shortsOfSupplies(part, WEIGHT.short, { pairs: false }),
  ],
});
