import { definePartKind } from '../part-kind';
import { shortsToGround } from '../modes';

const WEIGHT = { short: 1.5 };

export const clampDiode = definePartKind({
  kind: 'clampDiode',
  work: { minutes: 3, price: 0.5, harm: 0.005 },
  story: { unknownCharger: 3 },
  faults: (board, part) => shortsToGround(board, part, WEIGHT.short),
});
