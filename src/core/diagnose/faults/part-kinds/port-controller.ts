import { definePartKind } from '../part-kind';
import { faultOf } from '../fault';
import { blown, dead, liftedPads, shortsOfSupplies } from '../modes';

const WEIGHT = { short: 2.5, dead: 3, core: 3, blown: 3, side: 2 };

export const portController = definePartKind({
  kind: 'portController',
  work: { minutes: 14, price: 9, harm: 0.02 },
  story: { unknownCharger: 3 },
  faults: (_board, part) => [
    ...shortsOfSupplies(part, WEIGHT.short, { pairs: true }),
    ...liftedPads(part),
    dead(part, WEIGHT.dead),
    faultOf(part, 'core', 'dead inside, its regulator alive', WEIGHT.core, [{ kind: 'coreDead', ref: part.ref }]),
    blown(part, WEIGHT.blown),
    ...(['A', 'B'] as const).map((side) =>
      faultOf(part, `side-${side}`, `its CC side ${side} dead`, WEIGHT.side, [{ kind: 'ccDead', ref: part.ref, side }]),
    ),
  ],
});
