import { parentPort, workerData } from 'node:worker_threads';
import { DiagnoseSession, Predictor, sampleReading, type SessionAnswer } from '../../src/core/diagnose';
import { seededRandom } from '../../src/core/math';
import { plausibleBoard } from './plausible-board';

export interface SizeResult {
  readonly parts: number;
  readonly faults: number;
  readonly classes: number;
  readonly tests: number;
  readonly firstMs: number;
  /** Median over a job of ten readings, as proposed. */
  readonly readingMs: number;
  readonly megabytes: number;
}

const parts = workerData as number;
const board = plausibleBoard(parts);
const random = seededRandom(parts);
const start = performance.now();
const predictor = Predictor.of(board);
const session = new DiagnoseSession(predictor);
let answer: SessionAnswer = session.answer();
const firstMs = performance.now() - start;
const hidden = predictor.faults.find((f) => f.id === 'U4/short/AON33')!;
const times: number[] = [];
for (let k = 0; k < 10 && (answer.step.kind === 'test' || answer.step.kind === 'again'); k++) {
  const { measurement } = answer.step;
  const { value } = sampleReading(predictor, measurement, hidden, random);
  const at = performance.now();
  const taken = session.take({ reading: { measurement, value } });
  if (!taken.ok) throw new Error(taken.problems[0].message);
  answer = taken.value;
  times.push(performance.now() - at);
}
times.sort((a, b) => a - b);
const { belief, ranked } = session.position();
const result: SizeResult = {
  parts: board.parts.length,
  faults: belief.faults.length,
  classes: belief.space.classes.members.length,
  tests: ranked.tests.length,
  firstMs,
  readingMs: times[Math.floor(times.length / 2)],
  megabytes: process.memoryUsage().rss / 2 ** 20,
};
parentPort!.postMessage(result);
