import { DEMO_BOARDS, demoBoard } from '../../demo/files';
import {
  Predictor,
  boardMeasurements,
  measurementId,
  sampleReading,
  suspects,
  updateBelief,
} from '../../src/core/diagnose';
import { seededRandom } from '../../src/core/math';
import { together } from '../../src/core/drill';
import { boardsFrom } from './draw';
import { note, ratio, section } from '../print';
import { inWorker } from '../bundled';
import type { PairsBoard, PairsResult } from './pairs.worker';
import { hundredParts } from './small-boards';

const NONE = new Set<string>();
const BOARDS = 2000;
const BINS = 10;
/** Are the stated chances true? Noisy readings on boards drawn from the prior; expected calibration error over ten bins. */
export function benchBelief(): void {
  section(`Belief: ${BOARDS} boards of each kind with one fault or two, noisy readings at the stated rates`);
  for (const id of DEMO_BOARDS) {
    const predictor = Predictor.of(demoBoard(id));
    const draw = boardsFrom(predictor);
    const tests = boardMeasurements(predictor.board);
    const random = seededRandom(2026);
    const bins = Array.from({ length: BINS }, () => ({ stated: 0, hits: 0, count: 0 }));
    for (let b = 0; b < BOARDS; b++) {
      const faults = draw(random);
      const refs = new Set(faults.map((f) => f.ref));
      const readings = Array.from({ length: 4 + Math.floor(random() * 16) }, () =>
        sampleReading(predictor, tests[Math.floor(random() * tests.length)], together(faults), random),
      );
      for (const s of suspects(updateBelief(predictor, readings, [])).slice(0, 5)) {
        if (s.ref === 'outside') continue;
        const bin = bins[Math.min(BINS - 1, Math.floor(s.p * BINS))];
        bin.stated += s.p;
        bin.hits += refs.has(s.ref) ? 1 : 0;
        bin.count++;
      }
    }
    const all = bins.reduce((sum, bin) => sum + bin.count, 0);
    const error = bins.reduce((sum, { stated, hits }) => sum + Math.abs(stated - hits), 0) / all;
    note(`${id}: stated chance, share at fault, count`);
    for (const { stated, hits, count } of bins.filter((bin) => bin.count > 0))
      note(`  ${(stated / count).toFixed(2)}  ${(hits / count).toFixed(2)}  ${count}`);
    ratio('expected calibration error', error, 'at most 0.05');
  }
}

/** All single and double faults at all tests, in a worker, against solving each pair by itself. */
export async function benchPairs(): Promise<void> {
  section('All single and double faults at every test of a board, in a worker');
  for (const id of [...DEMO_BOARDS, 'hundred-parts'] as const) {
    const got = await inWorker<PairsResult>('diagnose/pairs.worker.ts', id);
    note(
      `${id}: ${got.parts} parts, ${got.hypotheses} single and double faults, ${got.tests} tests: ${got.firstMs.toFixed(0)} ms at first in a worker that has computed the library's other boards at its start, ${got.againMs.toFixed(0)} ms after that (wanted within 500 ms)`,
    );
    note(`a reading into belief and next test: ${got.updateMs.toFixed(0)} ms (wanted within 100 ms)`);
    ratio('solving each pair by itself / tables', naiveMs(id, got.hypotheses, got.tests) / got.againMs, 'at least 50');
  }
}

/** A sample of pairs predicted one by one by the plain predictor, scaled to all of them. */
function naiveMs(id: PairsBoard, hypotheses: number, tests: number): number {
  const predictor = new Predictor(id === 'hundred-parts' ? hundredParts() : demoBoard(id));
  const list = boardMeasurements(predictor.board);
  const random = seededRandom(3);
  const count = 4000;
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)];
  for (const m of list) predictor.predict(m, predictor.faults[0], NONE, NONE);
  const start = performance.now();
  for (let k = 0; k < count; k++) {
    const [a, b] = [pick(predictor.faults), pick(predictor.faults)];
    const m = pick(list);
    predictor.predict(
      m,
      { ...a, id: `${k} ${measurementId(m)}`, ref: '', effects: [...a.effects, ...b.effects] },
      NONE,
      NONE,
    );
  }
  return ((performance.now() - start) / count) * hypotheses * tests;
}
