import { demoBoard, demoStations } from '../../../demo/files';
import { COARSE_MESH, NOMINAL_STATION, simulateHeat, startingPlan, withMultiplier, type Station } from '../heat';
import { normalDraw, seededRandom } from '../math';
import { problemText } from '../result';
import { calibrationFromCurve, type LoggedCurve } from '.';

const board = demoBoard('heronlog-4-c');
const [station] = demoStations();
const plan = startingPlan('U4', 'SAC305', 4);

/** A log of the plan on a station whose true parameters are known, with noise and a start in between two seconds. */
function logged(truth: Station, noiseK: number, seed = 5, ref = 'U4'): LoggedCurve {
  const random = seededRandom(seed);
  const run = simulateHeat(board, truth, plan, { ...COARSE_MESH, frames: false })!;
  const { jointMeanC } = run.parts.find((p) => p.ref === ref)!;
  return { ref, timesS: [...run.timesS], readC: [...jointMeanC].map((t) => t + noiseK * normalDraw(random)) };
}

function answered(curve: LoggedCurve, on: Station = station) {
  const answer = calibrationFromCurve(board, on, plan, curve);
  if (!answer.ok) throw new Error(problemText(answer.problems));
  return answer.value;
}

test('a run exactly as computed leaves the station where it was, and surer', () => {
  const { rmsK, calibration } = answered(logged(station, 0));
  expect(rmsK).toBeLessThan(0.01);
  expect(calibration.outletEfficiency.value).toBeCloseTo(station.outletEfficiency, 4);
  expect(calibration.multiplier.value).toBeCloseTo(station.multiplier, 4);
  expect(calibration.multiplier.sd).toBeLessThan(station.doubt * station.multiplier);
});

test('a stronger station is found from its log; what is left is the noise', () => {
  const truth = {
    ...withMultiplier(station, 1.12 * station.multiplier),
    outletEfficiency: 1.03 * station.outletEfficiency,
  };
  const { rmsK, rmsAfterK, residualsK, calibration: c } = answered(logged(truth, 1));
  expect(rmsK).toBeGreaterThan(5);
  expect(rmsAfterK).toBeLessThan(2);
  expect(residualsK[60].offK).toBeGreaterThan(0);
  expect(Math.abs(c.multiplier.value - truth.multiplier)).toBeLessThan(2 * c.multiplier.sd);
  expect(Math.abs(c.outletEfficiency.value - truth.outletEfficiency)).toBeLessThan(2 * c.outletEfficiency.sd);
});

test('what cannot be compared is refused with a sentence', () => {
  const short = logged(station, 0);
  const refused = (curve: LoggedCurve): string => {
    const answer = calibrationFromCurve(board, NOMINAL_STATION, plan, curve);
    return answer.ok ? '' : problemText(answer.problems);
  };
  expect(refused({ ...short, ref: 'U99' })).toBe('Expected a probe at a part of this board; got "U99".');
  expect(refused({ ...short, timesS: short.timesS.slice(0, 12), readC: short.readC.slice(0, 12) })).toBe(
    'Expected readings over at least 30 s of the plan’s 110 s; got 12 s.',
  );
});
