/** A small seeded sample of what the benchmark does at length: are the stated probabilities true? */
import { smallBoards } from '../../../bench/diagnose/small-boards';
import { seededRandom, type Random } from '../math';
import { suspects, updateBelief } from './belief';
import { OUTSIDE, type Fault } from './faults';
import { boardMeasurements } from './measurement';
import type { Reading } from './reading';
import { Predictor } from './predictor';
import { pickWeighted, sampleReading } from './simulate';

// The benchmark draws on the demo boards; a few parts round a port say the same in a hundredth of the time.
const predictor = Predictor.of(smallBoards()[1]);
const { space, faults, prior } = updateBelief(predictor, [], []);
const tests = boardMeasurements(predictor.board);
const BOARDS = 240;
const READINGS = 8;

const members: [number, number][] = [];
space.forEach((_, i, j) => members.push([i, j]));

/** A board drawn from the prior: one fault or two, and the parts that are at fault. */
function drawBoard(random: Random): { fault: Fault; refs: string[] } {
  const [i, j] = members[pickWeighted(prior(), random)];
  const both = j < 0 ? [faults[i]] : [faults[i], faults[j]];
  const fault = { ...both[0], id: both.map((f) => f.id).join('+'), ref: '', effects: both.flatMap((f) => f.effects) };
  return { fault, refs: both.map((f) => f.ref || OUTSIDE) };
}

const someReadings = (fault: Fault, count: number, random: Random): Reading[] =>
  Array.from({ length: count }, () =>
    sampleReading(predictor, tests[Math.floor(random() * tests.length)], fault, random),
  );

test('on 240 boards with one fault or two and noisy readings, of the parts called p likely about p are at fault @long', () => {
  const random = seededRandom(2026);
  const bins = Array.from({ length: 5 }, () => ({ stated: 0, true: 0, count: 0 }));
  let topThree = 0;
  for (let b = 0; b < BOARDS; b++) {
    const { fault, refs } = drawBoard(random);
    const ranked = suspects(updateBelief(predictor, someReadings(fault, READINGS, random), []));
    const top = ranked[0];
    const bin = bins[Math.min(4, Math.floor(top.p * 5))];
    bin.stated += top.p;
    bin.true += refs.includes(top.ref) ? 1 : 0;
    bin.count++;
    if (ranked.slice(0, 3).some((s) => refs.includes(s.ref))) topThree++;
  }
  const error =
    bins.reduce((sum, { stated, true: hits, count }) => sum + (count ? Math.abs(stated - hits) : 0), 0) / BOARDS;
  // The sampling error of 240 boards alone is about 0.026 a bin.
  expect(error).toBeLessThan(0.08);
  expect(topThree / BOARDS).toBeGreaterThan(0.3);
  expect(bins.filter((bin) => bin.count > 0).length).toBeGreaterThanOrEqual(4);
});

test('more readings make the true hypothesis likelier on average @long', () => {
  const random = seededRandom(7);
  const share = [0, 4, 16].map((count) => {
    let sum = 0;
    for (let b = 0; b < 40; b++) {
      const { fault, refs } = drawBoard(random);
      const ranked = suspects(updateBelief(predictor, someReadings(fault, count, random), []));
      sum += ranked.find((s) => s.ref === refs[0])!.p;
    }
    return sum / 40;
  });
  expect(share[1]).toBeGreaterThan(share[0]);
  expect(share[2]).toBeGreaterThan(share[1]);
});
