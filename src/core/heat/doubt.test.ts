import { STATION_UNKNOWNS, covarianceOf, doubtAxes, doubtDirections, movedBy, spreadOf, unknownsOf } from './doubt';
import { startingPlan } from './plan';
import { NOMINAL_STATION, type Station } from './station';

const plan = startingPlan('U4', 'SAC305', 6);
const covariance = STATION_UNKNOWNS.map((_, i) =>
  STATION_UNKNOWNS.map((_, j) => {
    const sds = [0.02, 0.05, 0.4, 1, 0.08, 0.03];
    const tied = (i === 0 && j === 1) || (i === 1 && j === 0) ? -0.9 : 0;
    return i === j ? sds[i] ** 2 : tied * sds[i] * sds[j];
  }),
);
const calibrated: Station = {
  ...NOMINAL_STATION,
  efficiencyByFlow: { exponent: 0, atFlowLpm: 30 },
  known: { covariance },
};

test('directions make up the covariance again, and what two unknowns share is kept: a stronger jet with a cooler outlet changes little', () => {
  const directions = doubtDirections(calibrated);
  STATION_UNKNOWNS.forEach((_, i) =>
    STATION_UNKNOWNS.forEach((_, j) => {
      const sum = directions.reduce((s, d) => s + d[i] * d[j], 0);
      expect(sum).toBeCloseTo(covariance[i][j], 6);
    }),
  );
  // Something that rises with both in the measure of their spread: nearly all of it cancels.
  const sum = ({ outletEfficiency, multiplier }: Station): number => outletEfficiency / 0.02 + multiplier / 0.05;
  const offs = doubtAxes(calibrated, plan)
    .slice(0, -1)
    .map((s) => sum(s) - sum(calibrated));
  expect(spreadOf(offs)).toBeCloseTo(Math.sqrt(2 - 1.8), 2);
});

test('moving along a direction and back is the station again; bounds hold where a direction leads out of them', () => {
  const directions = doubtDirections(calibrated);
  const there = movedBy(calibrated, directions, [1, -0.5, 0.3, 0, 1, 1]);
  const back = movedBy(there, directions, [-1, 0.5, -0.3, 0, -1, -1]);
  STATION_UNKNOWNS.forEach((name) => expect(unknownsOf(back)[name]).toBeCloseTo(unknownsOf(calibrated)[name], 9));
  expect(movedBy(calibrated, directions, [1000, 0, 0, 0, 0, 0]).outletEfficiency).toBe(1.1);
});

test('a station that was never calibrated has the doubt that it states, and what is estimated of any', () => {
  const sds = covarianceOf(NOMINAL_STATION).map((row, i) => Math.sqrt(row[i]));
  expect(sds[1]).toBeCloseTo(0.12 * 0.7, 9);
  expect(sds.slice(2)).toEqual([0.5, 1.5, 0.1, 0.05]);
  // Its efficiency holds at no flow in particular: that direction is left out.
  expect(doubtAxes(NOMINAL_STATION, plan)).toHaveLength(6);
  expect(doubtAxes(calibrated, plan)).toHaveLength(7);
});

test('spreads add in squares, the model’s own error among them', () => {
  expect(spreadOf([3, 4])).toBe(5);
  expect(spreadOf([3, 4], 1200)).toBe(13);
});
