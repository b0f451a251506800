import { demoBoard } from '../../../demo/files';
import {
  NOMINAL_STATION,
  aimPlan,
  judgeHeat,
  marginOf,
  openingPlan,
  simulateHeat,
  startingPlan,
  type HeatPlan,
} from '.';
import { cutOut } from './tests/cut-out';

const whole = demoBoard('heronlog-4-c');
const cut = cutOut(whole, 'U4', 18);
const full = (plan: HeatPlan, board = cut) =>
  judgeHeat(board, plan, simulateHeat(board, NOMINAL_STATION, plan, { frames: false })!);

test('where the aimed plan breaks a limit, the look finds one that holds, as the full solver judges, better with every word @long', () => {
  const start = startingPlan('U4', cut.alloy, 4);
  expect(full(aimPlan(cut, NOMINAL_STATION, start).plan).holds).toBe(false);
  const told: number[] = [];
  const found = openingPlan(cut, NOMINAL_STATION, start, {
    onBetter: (b) => told.push(b.marginK - b.plan.covers.length),
  });
  expect(full(found.plan).holds).toBe(true);
  expect(found.marginK).toBeCloseTo(marginOf(full(found.plan)).marginK, 9);
  expect(told).toEqual([...told].sort((a, b) => a - b));
  expect(told.length).toBeGreaterThan(1);
});

test('a neighbour with a limit of its own is covered, and the headline says so first @long', () => {
  const start = { ...startingPlan('U4', whole.alloy, 4), limitsC: { U9: 204 } };
  const { plan, verdict, marginK } = openingPlan(whole, NOMINAL_STATION, start);
  expect(plan.covers).toContain('U9');
  expect(verdict.headline).toMatch(/^Cover .*U9.*, lift U4 at /);
  expect(marginOf(full({ ...plan, covers: [] }, whole)).marginK).toBeLessThan(marginK);
});
