import { parentPort, workerData } from 'node:worker_threads';
import { demoBoard, type DEMO_BOARDS } from '../../demo/files';
import { Predictor, sampleReading } from '../../src/core/diagnose';
import { seededRandom } from '../../src/core/math';
import { checklistChoice } from './checklist';
import { together } from '../../src/core/drill';
import { boardsFrom } from './draw';
import { ownChoice, playJob } from './play';

/** A share of the boards, played in one way. */
export interface Share {
  readonly board: (typeof DEMO_BOARDS)[number];
  readonly way: 'own' | 'checklist';
  /** Numbers of the boards: each has its own seed, so that both ways meet the same boards. */
  readonly from: number;
  readonly to: number;
}

export interface ShareResult {
  readonly proven: number;
  readonly minutes: number;
}

const { board, way, from, to } = workerData as Share;
const predictor = Predictor.of(demoBoard(board));
const draw = boardsFrom(predictor);
const choose = way === 'own' ? ownChoice : checklistChoice(predictor);
let proven = 0;
let minutes = 0;
for (let k = from; k < to; k++) {
  const random = seededRandom(k);
  const played = playJob(
    predictor,
    draw(random),
    choose,
    (m, faults, state) => sampleReading(predictor, m, together(faults), random, state),
    {},
  );
  proven += Number(played.proven);
  minutes += played.minutes;
}
parentPort!.postMessage({ proven, minutes } satisfies ShareResult);
