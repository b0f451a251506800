import { parentPort, workerData } from 'node:worker_threads';
import { DEMO_BOARDS, demoBoard } from '../../demo/files';
import {
  FaultCase,
  Predictor,
  boardMeasurements,
  updateBelief,
  warmUp,
  rankActions,
  type Reading,
} from '../../src/core/diagnose';
import { hundredParts } from './small-boards';

export type PairsBoard = (typeof DEMO_BOARDS)[number] | 'hundred-parts';

export interface PairsResult {
  readonly parts: number;
  readonly hypotheses: number;
  readonly tests: number;
  readonly firstMs: number;
  readonly againMs: number;
  readonly updateMs: number;
}

const NONE = new Set<string>();
const id = workerData as PairsBoard;
const board = id === 'hundred-parts' ? hundredParts() : demoBoard(id);
const tests = boardMeasurements(board);

function timed(work: () => void): number {
  const start = performance.now();
  work();
  return performance.now() - start;
}

/** The middle one of so many rounds is told: the compiler is warm only after a few. */
const ROUNDS = 15;

/** Every table of a fresh predictor: nothing is kept from the round before. */
const allTables = (): void => {
  const faultCase = FaultCase.of(new Predictor(board), []);
  for (const m of tests) faultCase.table(m, NONE, NONE);
};

// As the application does at its start with the boards of its library; the board that is asked for is none of them.
for (const other of DEMO_BOARDS) if (other !== id) warmUp(demoBoard(other));
const firstMs = timed(allTables);
const again = Array.from({ length: ROUNDS })
  .map(() => timed(allTables))
  .sort((a, b) => a - b);
const predictor = Predictor.of(board);
const reading: Reading = { measurement: { kind: 'visualInspection', ref: board.ports[0].id }, value: { kind: 'pass' } };
const take = (readings: readonly Reading[]): void => {
  const belief = updateBelief(predictor, readings, []);
  rankActions(belief, { access: 'closed', absent: NONE, replaced: [], taken: readings });
};
take([]);
const updates = [1, 2, 3].map((n) => timed(() => take(Array.from({ length: n }, () => reading)))).sort((a, b) => a - b);
const result: PairsResult = {
  parts: board.parts.length,
  hypotheses: updateBelief(predictor, [], []).space.size,
  tests: tests.length,
  firstMs,
  againMs: again[(ROUNDS - 1) / 2],
  updateMs: updates[1],
};
parentPort!.postMessage(result);
