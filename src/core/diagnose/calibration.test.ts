/** A small seeded sample of what the benchmark does at length: are the stated probabilities true? */
import { demoBoard } from '../../../demo/files';
import { seededRandom } from '../math';
import { suspects, updateBelief } from './belief';
import { OUTSIDE, priorOf } from './faults';
import { boardMeasurements } from './measurement';
import { Predictor } from './predict';
import { pickWeighted, sampleReading } from './simulate';

const predictor = Predictor.of(demoBoard('heronlog-4-c'));
const { board, faults } = predictor;
const prior = priorOf(board, faults, []);
const tests = boardMeasurements(board);
const BOARDS = 400;
const READINGS = 8;

test('on 400 boards with noisy readings, of the parts called p likely about p are at fault', () => {
  const random = seededRandom(2026);
  const bins = Array.from({ length: 5 }, () => ({ stated: 0, true: 0, count: 0 }));
  let topThree = 0;
  for (let b = 0; b < BOARDS; b++) {
    const fault = pickWeighted(prior, random);
    const readings = Array.from({ length: READINGS }, () =>
      sampleReading(predictor, tests[Math.floor(random() * tests.length)], faults[fault], random),
    );
    const ranked = suspects(updateBelief(predictor, readings, []));
    const ref = faults[fault].ref || OUTSIDE;
    const top = ranked[0];
    const bin = bins[Math.min(4, Math.floor(top.p * 5))];
    bin.stated += top.p;
    bin.true += top.ref === ref ? 1 : 0;
    bin.count++;
    if (ranked.slice(0, 3).some((s) => s.ref === ref)) topThree++;
  }
  const error =
    bins.reduce((sum, { stated, true: hits, count }) => sum + (count ? Math.abs(stated - hits) : 0), 0) / BOARDS;
  // The sampling error of 400 boards alone is about 0.02 a bin.
  expect(error).toBeLessThan(0.08);
  expect(topThree / BOARDS).toBeGreaterThan(0.3);
  expect(bins.filter((bin) => bin.count > 0).length).toBeGreaterThanOrEqual(4);
});

test('more readings make the true part likelier on average', () => {
  const random = seededRandom(7);
  const share = [0, 4, 16].map((count) => {
    let sum = 0;
    for (let b = 0; b < 80; b++) {
      const fault = pickWeighted(prior, random);
      const readings = Array.from({ length: count }, () =>
        sampleReading(predictor, tests[Math.floor(random() * tests.length)], faults[fault], random),
      );
      const { p } = updateBelief(predictor, readings, []);
      sum += faults.reduce((s, f, i) => s + (f.ref === faults[fault].ref ? p[i] : 0), 0);
    }
    return sum / 80;
  });
  expect(share[1]).toBeGreaterThan(share[0]);
  expect(share[2]).toBeGreaterThan(share[1]);
});
