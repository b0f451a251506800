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

const board = demoBoard('heronlog-4-c');
const full = (plan: HeatPlan) => judgeHeat(board, plan, simulateHeat(board, NOMINAL_STATION, plan, { frames: false })!);

test('where the aimed plan breaks a limit, the look finds one that holds, as the full solver judges, better with every word', () => {
  const start = startingPlan('U4', board.alloy, 4);
  expect(full(aimPlan(board, NOMINAL_STATION, start).plan).holds).toBe(false);
  const told: number[] = [];
  const found = openingPlan(board, NOMINAL_STATION, start, {
    onBetter: (b) => told.push(b.marginK - b.plan.covers.length),
  });
  expect(full(found.plan).holds).toBe(true);
  expect(found.marginK).toBeCloseTo(marginOf(full(found.plan)).marginK, 9);
  expect(told).toEqual([...told].sort((a, b) => a - b));
  expect(told.length).toBeGreaterThan(1);
});

test('a neighbour with a limit of its own is covered, and the headline says so first', () => {
  const start = { ...startingPlan('U4', board.alloy, 4), limitsC: { U9: 204 } };
  const { plan, verdict, marginK } = openingPlan(board, NOMINAL_STATION, start);
  expect(plan.covers).toContain('U9');
  expect(verdict.headline).toMatch(/^Cover .*U9.*, lift U4 at /);
  expect(marginOf(full({ ...plan, covers: [] })).marginK).toBeLessThan(marginK);
});
