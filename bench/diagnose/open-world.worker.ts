import { parentPort, workerData } from 'node:worker_threads';
import { demoBoard, type DEMO_BOARDS } from '../../demo/files';
import { Predictor } from '../../src/core/diagnose';
import { seededRandom } from '../../src/core/math';
import { checklistChoice } from './checklist';
import { hiddenBoards, NoisyBench as Bench } from '../../src/core/drill';
import { playJob } from './play';
import { playSession, type PlayedSession } from './play-session';

/** A share of the hidden boards. Each has its own seed. */
export interface OpenShare {
  readonly board: (typeof DEMO_BOARDS)[number];
  readonly from: number;
  readonly to: number;
}

export interface OpenResult extends PlayedSession {
  readonly outside: boolean;
  readonly faults: number;
  readonly checklistMinutes: number;
}

const { board, from, to } = workerData as OpenShare;
const predictor = Predictor.of(demoBoard(board));
const draw = hiddenBoards(predictor);
const results: OpenResult[] = [];
for (let k = from; k < to; k++) {
  const random = seededRandom(k);
  const hidden = draw(random);
  const played = playSession(predictor, hidden.faults, new Bench(predictor, seededRandom(100_000 + k)));
  const bench = new Bench(predictor, seededRandom(100_000 + k));
  const fixed = playJob(
    predictor,
    hidden.faults,
    checklistChoice(predictor),
    (m, faults, state) => bench.read(m, faults, state),
    {},
  );
  results.push({ ...played, outside: hidden.outside, faults: hidden.faults.length, checklistMinutes: fixed.minutes });
}
parentPort!.postMessage(results);
