/** A small seeded sample of what the benchmark does at length: are the stated probabilities true? */
import { demoBoard } from '../../../demo/files';
import { seededRandom, type Random } from '../math';
import { ERROR_RATE, suspects, updateBelief } from './belief';
import { priorOf } from './faults';
import type { Measurement, Reading, Value } from './measurement';
import { boardMeasurements } from './measurement';
import { OPEN_LOG_OHM, Predictor } from './predict';

const predictor = Predictor.of(demoBoard('heronlog-4-c'));
const { board, faults } = predictor;
const prior = priorOf(board, faults, []);
const tests = boardMeasurements(board).filter((m) => m.kind !== 'usb');
const BOARDS = 400;
const READINGS = 8;

function pick(weights: ArrayLike<number>, random: Random): number {
  let left = random();
  for (let i = 0; i < weights.length; i++) if ((left -= weights[i]) < 0) return i;
  return weights.length - 1;
}

/** A normal draw by Box and Muller (1958). */
const normal = (random: Random): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** One noisy reading of a board with this fault, slips of the probe at the stated rate counted in. */
function noisy(m: Measurement, fault: number, random: Random): Reading {
  const slip = random() < ERROR_RATE[m.kind];
  const prediction = predictor.predict(m, faults[fault], new Set(), new Set());
  if (prediction.kind === 'verdict') {
    const fails = slip ? random() < 0.5 : random() < prediction.failChance;
    return { measurement: m, value: { kind: fails ? 'fail' : 'pass' } };
  }
  const resistance = m.kind === 'ohm' || m.kind === 'through';
  const alternative =
    prediction.alternatives[
      pick(
        prediction.alternatives.map((a) => a.weight),
        random,
      )
    ];
  const range = resistance ? [-1, OPEN_LOG_OHM] : m.kind === 'drop' ? [0, 2] : [0, 25];
  const shown = slip
    ? range[0] + random() * (range[1] - range[0])
    : alternative.means[0] + alternative.sds[0] * normal(random);
  const value: Value =
    resistance && shown >= OPEN_LOG_OHM
      ? { kind: 'open' }
      : { kind: 'figure', value: resistance ? 10 ** shown : shown };
  return { measurement: m, value };
}

test('on 400 boards with noisy readings, of the parts called p likely about p are at fault', () => {
  const random = seededRandom(2026);
  const bins = Array.from({ length: 5 }, () => ({ stated: 0, true: 0, count: 0 }));
  let topThree = 0;
  for (let b = 0; b < BOARDS; b++) {
    const fault = pick(prior, random);
    const readings = Array.from({ length: READINGS }, () =>
      noisy(tests[Math.floor(random() * tests.length)], fault, random),
    );
    const ranked = suspects(updateBelief(predictor, readings, []));
    const ref = faults[fault].ref || 'outside';
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
      const fault = pick(prior, random);
      const readings = Array.from({ length: count }, () =>
        noisy(tests[Math.floor(random() * tests.length)], fault, random),
      );
      const { p } = updateBelief(predictor, readings, []);
      sum += faults.reduce((s, f, i) => s + (f.ref === faults[fault].ref ? p[i] : 0), 0);
    }
    return sum / 80;
  });
  expect(share[1]).toBeGreaterThan(share[0]);
  expect(share[2]).toBeGreaterThan(share[1]);
});
