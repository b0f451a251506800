import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import type { Board } from '../board';
import { seededRandom } from '../math';
import { startingPlan, type HeatPlan } from './plan';
import { coversPlan, familyOf, reduceFamily } from './reduced';
import { ReducedRunner } from './reduced-runner';
import { simulateHeat } from './simulate';
import { NOMINAL_STATION, type Station } from './station';

const SERIES = ['jointMinC', 'jointMeanC', 'jointMaxC', 'bodyMaxC'] as const;

/** Largest difference of any curve of any part, K. */
function apart(board: Board, station: Station, plan: HeatPlan, runner: ReducedRunner): number {
  const full = simulateHeat(board, station, plan, { frames: false, meltless: true })!;
  const reduced = runner.run(plan);
  expect([...reduced.timesS]).toHaveLength(full.timesS.length);
  return Math.max(
    ...full.parts.flatMap((curve, p) =>
      SERIES.flatMap((key) => [...curve[key]].map((t, s) => Math.abs(t - reduced.parts[p][key][s]))),
    ),
  );
}

/** Dials and durations drawn; flows and heights stay. */
const drawn = (plan: HeatPlan, random: () => number): HeatPlan => ({
  ...plan,
  steps: plan.steps.map((s) => ({
    ...s,
    durationS: 5 + Math.floor(40 * random()),
    airSetC: s.airSetC === null ? null : 120 + 340 * random(),
  })),
});

describe.each([
  { id: DEMO_BOARDS[0], more: {} },
  { id: DEMO_BOARDS[0], more: { plateSetC: 120, plateReady: false } },
  { id: DEMO_BOARDS[1], more: { plateSetC: 150, covers: ['U12'] } },
])('the reduced model of $id, $more', ({ id, more }) => {
  const board = demoBoard(id);
  const plan: HeatPlan = { ...startingPlan(board.ports[0].controller, 'SAC305', 6), ...more };
  const model = reduceFamily(board, NOMINAL_STATION, plan);
  const runner = new ReducedRunner(model);

  test('stays within 1 K of the full solver at every joint and body over random plans of its family', () => {
    const random = seededRandom(5);
    for (let k = 0; k < 4; k++) expect(apart(board, NOMINAL_STATION, drawn(plan, random), runner)).toBeLessThan(1);
  });

  test('is plain data: a copy gives the same curves', () => {
    const copy = new ReducedRunner(structuredClone(model));
    expect(copy.run(plan)).toEqual(runner.run(plan));
  });
});

test('a plan of another family is refused: another flow, another cover, another plate', () => {
  const board = demoBoard(DEMO_BOARDS[0]);
  const plan = startingPlan('U4', 'SAC305', 4);
  const model = reduceFamily(board, NOMINAL_STATION, plan, { fineMm: 1.5, growth: 1.6, coarsestMm: 6 });
  const hotter = { ...plan, steps: plan.steps.map((s) => (s.airSetC ? { ...s, airSetC: 333, durationS: 9 } : s)) };
  expect(coversPlan(model, hotter)).toBe(true);
  const flow = { ...plan, steps: plan.steps.map((s) => ({ ...s, flowLpm: 33 })) };
  for (const other of [flow, { ...plan, covers: ['U9'] }, { ...plan, plateSetC: 100 }, { ...plan, nozzleMm: 6 }]) {
    expect(coversPlan(model, other)).toBe(false);
    expect(() => new ReducedRunner(model).run(other)).toThrow(/family/);
  }
});

test('what the model may not see is told by its family: order of covers does not matter, everything else held does', () => {
  const plan = startingPlan('U4', 'SAC305', 4);
  expect(familyOf({ ...plan, covers: ['Q1', 'U9'] })).toBe(familyOf({ ...plan, covers: ['U9', 'Q1'] }));
  for (const change of [{ ambientC: 30 }, { plateReady: false }, { plateSetC: 90 }, { nozzleMm: 8 }, { partRef: 'U2' }])
    expect(familyOf({ ...plan, ...change })).not.toBe(familyOf(plan));
  // Limits and alloy are judged, not simulated.
  expect(familyOf({ ...plan, alloy: 'Sn63Pb37', limitsC: { U9: 150 } })).toBe(familyOf(plan));
});
