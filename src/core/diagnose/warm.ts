import type { Board } from '../board';
import { FaultCase } from './case';
import { boardMeasurements } from './measurement';
import { Predictor } from './predictor';

const NONE: ReadonlySet<string> = new Set();

/**
 * Predicts all single and double faults of a board at all its tests once: the board's tables are kept with it, and the
 * compiler has seen the loops before somebody waits for them (the first round of a cold process takes three times as long).
 */
export function warmUp(board: Board): void {
  const faultCase = FaultCase.of(Predictor.of(board), []);
  for (const m of boardMeasurements(board)) faultCase.table(m, NONE, NONE);
}
