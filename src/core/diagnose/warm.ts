import type { Board } from '../board';
import { FaultCase } from './case';
import { Predictor } from './predictor';

const NONE: ReadonlySet<string> = new Set();

/**
 * Predicts all single and double faults of a board at all its tests once: the board's tables are kept with it, and the
 * compiler has seen the loops before somebody waits for them (the first round of a cold process takes three times as long).
 */
export function warmUp(board: Board): void {
  const predictor = Predictor.of(board);
  const faultCase = FaultCase.of(predictor, []);
  for (const m of predictor.tests) faultCase.table(m, NONE, NONE);
}
