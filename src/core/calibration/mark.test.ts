import { demoBoard, demoStations } from '../../../demo/files';
import { ALLOYS } from '../joints';
import { COARSE_MESH, aimPlan, simulateHeat, startingPlan, withMultiplier, type Station } from '../heat';
import { problemText } from '../result';
import { calibrationFromMark } from '.';

const board = demoBoard('heronlog-4-c');
const [station] = demoStations();
const { plan } = aimPlan(board, station, startingPlan('U4', 'SAC305', 4));

function moltenS(on: Station): number {
  const run = simulateHeat(board, on, plan, { ...COARSE_MESH, frames: false })!;
  return run.parts.find((p) => p.ref === 'U4')!.jointMinC.findIndex((t) => t >= ALLOYS.SAC305.liquidusC);
}

function marked(seenS: number, on: Station = station) {
  const answer = calibrationFromMark(board, on, plan, seenS);
  if (!answer.ok) throw new Error(problemText(answer.problems));
  return answer.value;
}

test('a mark later than computed makes the station weaker, an earlier one stronger; doubt shrinks either way', () => {
  const { computedS } = marked(60);
  expect(Math.abs(computedS - moltenS(station))).toBeLessThanOrEqual(1);
  const [late, early] = [marked(computedS + 8), marked(computedS - 8)];
  expect(late.calibration.multiplier.value).toBeLessThan(station.multiplier);
  expect(late.calibration.outletEfficiency.value).toBeLessThan(station.outletEfficiency);
  expect(early.calibration.multiplier.value).toBeGreaterThan(station.multiplier);
  for (const { calibration } of [late, early])
    expect(calibration.multiplier.sd).toBeLessThan(station.doubt * station.multiplier);
  // The mark's own doubt grows with its time: the early one moves the station a little more.
  const moves = [early, late].map((m) => Math.abs(m.calibration.multiplier.value - station.multiplier));
  expect(moves[0]).toBeGreaterThan(moves[1]);
  expect(moves[0]).toBeLessThan(1.3 * moves[1]);
});

test('the moved station computes a time between its old one and the mark', () => {
  const before = marked(60).computedS;
  const { calibration } = marked(before + 8);
  const moved = {
    ...withMultiplier(station, calibration.multiplier.value),
    outletEfficiency: calibration.outletEfficiency.value,
  };
  const after = moltenS(moved);
  expect(after).toBeGreaterThan(before - 1);
  expect(after).toBeLessThan(before + 8);
});

test('a mark far off is told as standard deviations; a plan that never melts cannot be compared', () => {
  expect(Math.abs(marked(marked(60).computedS + 60).residualSds)).toBeGreaterThan(3);
  const cold = { ...plan, steps: plan.steps.map((s) => (s.airSetC === null ? s : { ...s, airSetC: 150 })) };
  const answer = calibrationFromMark(board, station, cold, 60);
  expect(!answer.ok && problemText(answer.problems)).toMatch(/^Expected a plan that melts U4 on this station/);
});
