import { demoBoard } from '../../../demo/files';
import { partByRef, type Board } from '../board';
import {
  COARSE_MESH,
  NOMINAL_STATION,
  judgeHeat,
  nozzleFor,
  planFor,
  simulateHeat,
  startingPlan,
  withCopper,
  type HeatPlan,
  type HeatVerdict,
} from '../heat';
import { seededRandom } from '../math';
import {
  bestOrder,
  clearingSteps,
  orderCost,
  planClearing,
  stretchesOf,
  tryGuards,
  windowInDoubt,
  type EdgeSegment,
} from '.';

const board = demoBoard('heronlog-4-c');
const part = partByRef(board, 'U4')!;
const lift: HeatPlan = {
  ...startingPlan('U4', board.alloy, nozzleFor(NOMINAL_STATION.nozzlesMm, board.packages[part.package].bodyMm)),
  plateSetC: 120,
};
const soften = planFor(board, NOMINAL_STATION, lift, 'soften');

const permutations = <T>(list: readonly T[]): T[][] =>
  list.length < 2
    ? [[...list]]
    : list.flatMap((x, i) => permutations(list.filter((_, k) => k !== i)).map((p) => [x, ...p]));

test('the order of edges equals an exhaustive search over all orders', () => {
  const random = seededRandom(31);
  for (let draw = 0; draw < 12; draw++) {
    const some = stretchesOf(board, part)
      .filter(() => random() < 0.75)
      .slice(0, 6)
      .map((s): EdgeSegment => ({ ...s, risk: 3 * random(), lengthMm: 1 + 5 * random() }));
    const best = Math.min(...permutations(some).map(orderCost));
    const order = bestOrder(some);
    expect(orderCost(order)).toBeCloseTo(best, 12);
    expect(new Set(order.map((s) => s.name)).size).toBe(some.length);
  }
});

test('the tight side beside a precious neighbour comes last, and the tool points away from it', () => {
  const box = board.packages[part.package].bodyMm;
  const near: Board = {
    ...board,
    parts: [
      { ...part },
      {
        ...partByRef(board, 'U9')!,
        xMm: part.xMm + box[0] / 2 + 2.6,
        yMm: part.yMm + 0.5,
        side: part.side,
        underfilled: true,
      },
    ],
  };
  const steps = clearingSteps(near, part, 'soft');
  const right = steps.findIndex((s) => s.name === 'right edge');
  expect(steps.slice(right + 1).every((s) => s.near === 'U9' && s.name.endsWith('corner'))).toBe(true);
  expect(steps[right].tool).toContain('point away from U9');
  expect(steps[0].name).not.toContain('right');
});

test('clearances are the distances to the nearest body, and harder underfill takes longer', () => {
  for (const s of stretchesOf(board, part)) if (s.near) expect(s.clearanceMm).toBeGreaterThan(0);
  const seconds = (kind: 'edge' | 'soft' | 'hard'): number =>
    clearingSteps(board, part, kind).reduce((s, e) => s + e.seconds, 0);
  expect(seconds('edge')).toBeLessThan(seconds('soft'));
  expect(seconds('soft')).toBeLessThan(seconds('hard'));
});

const judged = (b: Board, plan: HeatPlan): HeatVerdict =>
  judgeHeat(b, plan, simulateHeat(b, NOMINAL_STATION, plan, { ...COARSE_MESH, frames: false })!);
const hotter = (plan: HeatPlan, byC: number): HeatPlan => ({
  ...plan,
  steps: plan.steps.map((s) => (s.airSetC === null ? s : { ...s, airSetC: Math.min(500, s.airSetC + byC) })),
});
const at = (v: HeatVerdict): number => v.reachedAtS ?? Infinity;

test.each([
  ['lift', lift],
  ['soften', soften],
])('the window of %s: hotter is never later, more copper never sooner', (_, plan) => {
  const random = seededRandom(8);
  for (let draw = 0; draw < 4; draw++) {
    const start = hotter(plan, 20 + 60 * random());
    const usual = judged(board, start);
    expect(at(judged(board, hotter(start, 5 + 30 * random())))).toBeLessThanOrEqual(at(usual));
    expect(at(judged(withCopper(board, 1.1 + 0.8 * random()), start))).toBeGreaterThanOrEqual(at(usual));
  }
});

test('the station’s doubt brackets the usual moment; without doubt there is no range', () => {
  const plan = hotter(lift, 40);
  const { from, sure, verdict } = windowInDoubt(board, NOMINAL_STATION, plan);
  expect(from.earliestS!).toBeLessThan(from.usualS!);
  expect(from.latestS!).toBeGreaterThan(from.usualS!);
  expect(from.usualS).toBe(verdict.reachedAtS);
  expect(sure![0]).toBe(from.latestS);
  const nothingOpen = { covariance: Array.from({ length: 6 }, () => new Array<number>(6).fill(0)) };
  const certain = windowInDoubt(board, { ...NOMINAL_STATION, known: nothingOpen }, plan);
  expect(certain.from.usualS).toBe(from.usualS);
  // What is left is the shape of the film under the nozzle.
  expect(certain.from.earliestS!).toBeGreaterThan(from.earliestS!);
  expect(certain.from.latestS!).toBeLessThan(from.latestS!);
});

test('a plan that only warms has no window, and says so with nothing', () => {
  const cold = hotter(lift, -200);
  expect(windowInDoubt(board, NOMINAL_STATION, cold)).toMatchObject({
    from: { usualS: null, earliestS: null, latestS: null },
    sure: null,
  });
});

test('what a guard spares is what the simulation says with it and without it', () => {
  const plan = hotter(lift, 60);
  const threats = [{ ref: 'U9', what: '', from: 'heat' as const, summary: '', weight: 9 }];
  const guards = tryGuards(board, NOMINAL_STATION, plan, judged(board, plan), threats);
  const cover = guards.find((g) => g.plan.covers.includes('U9'))!;
  const peak = (p: HeatPlan): number => judged(board, p).neighbours.find((n) => n.ref === 'U9')!.peakC;
  expect(cover.spares.byK).toBeCloseTo(peak(plan) - peak({ ...plan, covers: ['U9'] }), 6);
  expect(cover.spares.byK).toBeGreaterThan(0);
  const beside = guards.find((g) => g.what === 'Nozzle 1.5 mm further from U9')!;
  expect(Math.hypot(...beside.plan.offsetMm)).toBeCloseTo(1.5, 0);
  expect(beside.spares.byK).toBeGreaterThan(0);
  expect(tryGuards(board, NOMINAL_STATION, plan, judged(board, plan), [])).toEqual([]);
});

test('the whole: windows, threats by weight, clearing only where there is underfill', () => {
  const plan = planClearing({ board, station: NOMINAL_STATION, plan: lift, underfill: 'hard' })!;
  expect(plan.threats.map((t) => t.weight)).toEqual([...plan.threats.map((t) => t.weight)].sort((a, b) => b - a));
  expect(plan.soften!.plan.softensC).toBe(170);
  expect(plan.soften!.window.verdict.hottestPeakC).toBeLessThan(217);
  expect(plan.soften!.seconds).toBe(plan.soften!.steps.reduce((s, e) => s + e.seconds, 0));
  expect(planClearing({ board, station: NOMINAL_STATION, plan: lift, underfill: null })!.soften).toBeUndefined();
  expect(
    planClearing({ board, station: NOMINAL_STATION, plan: { ...lift, partRef: 'U99' }, underfill: null }),
  ).toBeUndefined();
});
