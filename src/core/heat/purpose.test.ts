import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { padsOf, partByRef } from '../board';
import { ALLOYS } from '../joints';
import type { Board } from '../board';
import { gapConductance } from './materials';
import {
  GOALS_BY_ALLOY,
  NOMINAL_STATION,
  PURPOSES,
  ReducedRunner,
  UPPER_BOARD,
  adviceOn,
  aimPlan,
  judgeHeat,
  parsePlanEntry,
  planFor,
  reduceFamily,
  simulateHeat,
  startingPlan,
  workplaceOf,
  type HeatPlan,
  type HeatVerdict,
  type Purpose,
} from '.';

const board = demoBoard('heronlog-4-c');
const COARSE = { fineMm: 1, growth: 1.5, coarsestMm: 5, frames: false } as const;

function planned(purpose: Purpose, ref = 'U4', over = board): HeatPlan {
  const lift = startingPlan(ref, over.alloy, 4);
  const plan = planFor(over, NOMINAL_STATION, lift, purpose);
  return aimPlan(workplaceOf(over, plan), NOMINAL_STATION, plan).plan;
}

function judged(plan: HeatPlan, over = board): HeatVerdict {
  const place = workplaceOf(over, plan);
  return judgeHeat(place, plan, simulateHeat(place, NOMINAL_STATION, plan, COARSE)!);
}

test.each(PURPOSES)('a plan to %s reaches what it is for, and says so first', (purpose) => {
  const plan = planned(purpose);
  const verdict = judged(plan);
  expect(verdict.coldestPeakC).toBeGreaterThan(verdict.reachC);
  expect(verdict.actAtS).not.toBeNull();
  expect(verdict.headline).toContain(purpose === 'partBoards' ? 'upper board' : 'U4');
  expect(verdict.headline).toMatch(/ (at|from) /);
});

test('clearing underfill keeps its solder solid: the window ends before any joint melts', () => {
  const plan = planned('soften', 'U8');
  const verdict = judged(plan);
  const { solidusC } = ALLOYS[plan.alloy];
  expect(verdict.reachC).toBe(150);
  expect(verdict.ownLimitC).toBe(solidusC - GOALS_BY_ALLOY[plan.alloy].neighbourUnderSolidusK);
  expect(verdict.untilS!).toBeGreaterThan(verdict.actAtS!);
  const hot = { ...plan, steps: plan.steps.map((s) => (s.airSetC === null ? s : { ...s, airSetC: s.airSetC + 90 })) };
  const tooHot = judged(hot);
  expect(tooHot.holds).toBe(false);
  expect(tooHot.headline).toContain('but its solder gets too hot');
  // The window closes when the hottest joint comes to its limit, long before the air is off.
  expect(tooHot.untilS!).toBeLessThan(110);
});

test('underfill that softens earlier leaves a longer window', () => {
  const plan = planned('soften', 'U8');
  const window = (softensC: number): number => {
    const { reachedAtS, untilS } = judged({ ...plan, softensC });
    return untilS! - reachedAtS!;
  };
  expect(window(110)).toBeGreaterThan(window(150));
});

test('bare pads warm sooner than the same pads under their part', () => {
  const site = planned('site');
  const bare = simulateHeat(board, NOMINAL_STATION, site, COARSE)!;
  const under = simulateHeat(board, NOMINAL_STATION, { ...site, purpose: 'lift' }, COARSE)!;
  const at = 8;
  const mean = (run: typeof bare): number => run.parts.find((p) => p.ref === 'U4')!.jointMeanC[at];
  expect(mean(bare)).toBeGreaterThan(mean(under));
});

test('the upper board of a stack stands on joints along its edge; what is under it is left out', () => {
  const plan = planFor(board, NOMINAL_STATION, startingPlan('U4', board.alloy, 4), 'partBoards');
  const place = workplaceOf(board, plan);
  const upper = partByRef(place, UPPER_BOARD)!;
  const { xMm, yMm, sizeMm } = plan.stack!;
  const [w, h] = sizeMm;
  for (const pad of padsOf(place, upper)) {
    const inset = Math.min(w / 2 - Math.abs(pad.xMm - xMm), h / 2 - Math.abs(pad.yMm - yMm));
    expect(inset).toBeCloseTo(0.8, 6);
  }
  const between = place.parts.filter((p) => p.ref !== UPPER_BOARD && p.side === 'front');
  expect(between.every((p) => Math.abs(p.xMm - xMm) >= w / 2 || Math.abs(p.yMm - yMm) >= h / 2)).toBe(true);
  expect(plan.plateSetC).toBe(235);
});

test('a plate parts two boards sooner than air alone', () => {
  const plan = planned('partBoards');
  const without = judged({ ...plan, plateSetC: null });
  expect(without.coldestPeakC).toBeLessThan(judged(plan).coldestPeakC - 20);
});

test('a chip off the board needs a cooler dial than on it: nothing draws its heat away', () => {
  const hottest = (plan: HeatPlan): number => Math.max(...plan.steps.map((s) => s.airSetC ?? 0));
  const flow = (plan: HeatPlan): HeatPlan => ({
    ...plan,
    steps: plan.steps.map((s) => (s.airSetC === null ? s : { ...s, flowLpm: 20, heightMm: 12 })),
  });
  const aimed = (plan: HeatPlan): HeatPlan => aimPlan(workplaceOf(board, plan), NOMINAL_STATION, plan).plan;
  expect(hottest(aimed(flow(planned('reball'))))).toBeLessThan(hottest(aimed(flow(planned('lift')))));
});

test.each(['soften', 'site', 'partBoards', 'reball'] as const)(
  'the reduced model of a plan to %s stays within a kelvin of the full solver',
  (purpose) => {
    const plan = planned(purpose);
    const place = workplaceOf(board, plan);
    const dialled = {
      ...plan,
      steps: plan.steps.map((s) => (s.airSetC === null ? s : { ...s, airSetC: s.airSetC + 20 })),
    };
    const full = simulateHeat(place, NOMINAL_STATION, dialled, { ...COARSE, meltless: true })!;
    const reduced = new ReducedRunner(reduceFamily(place, NOMINAL_STATION, plan, COARSE)).run(dialled);
    const [a, b] = [full, reduced].map((run) => run.parts.find((p) => p.ref === plan.partRef)!.jointMinC);
    expect(Math.max(...a.map((t, i) => Math.abs(t - b[i])))).toBeLessThan(1);
  },
);

test('advice goes with the purpose', () => {
  const words = (purpose: Purpose): string => {
    const plan = planned(purpose);
    const place = workplaceOf(board, plan);
    const run = simulateHeat(place, NOMINAL_STATION, plan, COARSE)!;
    return adviceOn(place, NOMINAL_STATION, plan, run, judgeHeat(place, plan, run))
      .map((a) => a.message)
      .join(' ');
  };
  expect(words('soften')).toMatch(/the tight side last; hands off at \d+ s/);
  expect(words('partBoards')).toContain('Move the nozzle all the time, in a circle of 8 mm radius');
  expect(words('place')).toContain('let it freeze untouched');
});

describe('typed lines', () => {
  const lift = startingPlan('U4', board.alloy, 4);
  const enter = (plan: HeatPlan, text: string): string => {
    const edit = parsePlanEntry(board, NOMINAL_STATION, plan, text);
    return edit.ok ? JSON.stringify(edit.value.plan) : edit.problems[0].message;
  };
  const parting = planFor(board, NOMINAL_STATION, lift, 'partBoards');

  test('change purpose, underfill, sweep and stack', () => {
    expect(JSON.parse(enter(lift, 'for soften'))).toMatchObject({ purpose: 'soften', partRef: 'U4' });
    expect(JSON.parse(enter(lift, 'underfill hard')).softensC).toBe(170);
    expect(JSON.parse(enter(lift, 'softens 125')).softensC).toBe(125);
    expect(JSON.parse(enter(lift, 'sweep 6')).sweepMm).toBe(6);
    expect(JSON.parse(enter(parting, 'stack 30x20 at 35,30 gap 0.8')).stack).toMatchObject({
      sizeMm: [30, 20],
      xMm: 35,
      gapMm: 0.8,
    });
    expect(JSON.parse(enter(parting, 'for lift')).partRef).toBe(board.ports[0].controller);
    expect(planFor(board, NOMINAL_STATION, parting, 'lift', 'U4').partRef).toBe('U4');
  });

  test('are refused with expected and got', () => {
    expect(enter(lift, 'for toast')).toBe('Expected lift, place, soften, site, parting or reball; got "toast".');
    expect(enter(lift, 'underfill glue')).toBe('Expected edge, soft, hard, unknown or a temperature; got "glue".');
    expect(enter(lift, 'softens 300')).toBe('Expected a softening temperature from 60 to 210 °C; got 300.');
    expect(enter(lift, 'sweep 90')).toBe('Expected a circle of 0 to 40 mm radius; got 90.');
    expect(enter(lift, 'stack 30x20')).toBe('Expected a plan that parts two boards (for parting); got another.');
    expect(enter(parting, 'stack big')).toBe(
      'Expected the upper board’s size and centre, such as 30x20 at 35,30; got "big".',
    );
  });
});

test('between two boards: a wider gap lets less through, parts that stand in it more, and they hold heat', () => {
  const parting = planFor(board, NOMINAL_STATION, startingPlan('U4', 'SAC305', 8), 'partBoards');
  const peak = (gapMm: number, change = (place: Board): Board => place): number => {
    const plan = { ...parting, plateSetC: null, stack: { ...parting.stack!, gapMm } };
    const run = simulateHeat(change(workplaceOf(board, plan)), NOMINAL_STATION, plan, COARSE)!;
    return Math.max(...run.parts.find((p) => p.ref === plan.partRef)!.bodyMaxC);
  };
  // With the air on the upper board only, what goes through the gap is lost to it, and what stands in it takes heat up.
  expect(peak(2)).toBeGreaterThan(peak(0.2));
  expect(peak(1, (place) => ({ ...place, between: [] }) as Board)).toBeGreaterThan(peak(1));
  expect(gapConductance(0.5)).toBeGreaterThan(60);
  expect(gapConductance(0.5)).toBeLessThan(110);
});

test.each(DEMO_BOARDS)('every chip of %s can be worked on for every purpose', (id) => {
  const over = demoBoard(id);
  for (const part of over.parts.filter((p) => p.kind === 'portController').slice(0, 1))
    for (const purpose of PURPOSES) {
      const plan = planFor(over, NOMINAL_STATION, startingPlan(part.ref, over.alloy, 6), purpose);
      const place = workplaceOf(over, plan);
      const run = simulateHeat(place, NOMINAL_STATION, plan, COARSE)!;
      expect(run.energyError).toBeLessThan(1e-3);
      expect(run.parts.some((p) => p.ref === plan.partRef)).toBe(true);
    }
});
