import { demoBoard, demoStations } from '../../../demo/files';
import { aimPlan } from './aim';
import { GOALS_BY_ALLOY } from './goals';
import { evenField } from './field';
import { startingPlan, type HeatPlan } from './plan';
import { simulateHeat } from './simulate';
import { NOMINAL_STATION } from './station';
import { crossing, judgeHeat } from './verdict';

const board = demoBoard('heronlog-4-c');
const [station] = demoStations();

/** One long step at a constant dial with the nominal settings: 30 l/min, 12 mm, 6 mm nozzle. */
function constantDial(partRef: string, airSetC: number, more: Partial<HeatPlan> = {}): HeatPlan {
  const step = { name: 'heat', durationS: 90, airSetC, flowLpm: 30, heightMm: 12 };
  return { ...startingPlan(partRef, 'SAC305', 6), steps: [step], ...more };
}

/** Seconds until the coldest joint reaches a temperature on the nominal station; null when it never does. */
function secondsTo(tempC: number, plan: HeatPlan): number | null {
  const run = simulateHeat(board, NOMINAL_STATION, plan, { frames: false })!;
  return crossing(run.timesS, run.parts.find((p) => p.ref === plan.partRef)!.jointMinC, tempC);
}

test('heat balances within 0.1 % over a whole plan with changing steps', () => {
  const run = simulateHeat(board, station, startingPlan('U4', 'SAC305', 4), { frames: false })!;
  expect(run.energyError).toBeLessThan(0.001);
});

test('a hotter dial never melts later, and a plate that is ready below speeds it', () => {
  const times = [380, 400, 420].map((dial) => secondsTo(200, constantDial('U4', dial))!);
  expect(times[1]).toBeLessThanOrEqual(times[0]);
  expect(times[2]).toBeLessThanOrEqual(times[1]);
  expect(secondsTo(200, constantDial('U4', 380, { plateSetC: 150 }))!).toBeLessThan(times[0] - 2);
  // A cold plate draws heat off first.
  expect(secondsTo(200, constantDial('U4', 380, { plateSetC: 150, plateReady: false }))!).toBeGreaterThan(times[0]);
});

test('a cover keeps its neighbour cooler', () => {
  const peak = (covers: string[]): number => {
    const plan = { ...startingPlan('U4', 'SAC305', 4), covers };
    const run = simulateHeat(board, station, plan, { frames: false })!;
    return judgeHeat(board, plan, run).neighbours.find((n) => n.ref === 'U9')!.peakC;
  };
  // Foil keeps the air off, and the part's own radiation in.
  expect(peak(['U9'])).toBeLessThan(peak([]) - 1);
});

test('the aimed dial brings the coldest joint to the aim, judged by the full run', () => {
  for (const ref of ['U4', 'U2', 'U9']) {
    const { plan, reached } = aimPlan(board, station, startingPlan(ref, 'SAC305', 4));
    const verdict = judgeHeat(board, plan, simulateHeat(board, station, plan, { frames: false })!);
    expect(reached).toBe(true);
    // Dials are rounded to 5 °C and the aiming mesh is coarse.
    expect(Math.abs(verdict.coldestPeakC - verdict.reachC - GOALS_BY_ALLOY.SAC305.coldestOverLiquidusK)).toBeLessThan(
      4,
    );
  }
});

test('a run stops when it is asked to', () => {
  let told = 0;
  const run = simulateHeat(board, station, startingPlan('U4', 'SAC305', 4), {
    frames: false,
    onProgress: () => ++told < 3,
  });
  expect(run).toBeUndefined();
  expect(told).toBe(3);
});

describe('the verdict', () => {
  const plan = { ...startingPlan('U4', 'SAC305', 4), covers: ['U9'] };
  const run = simulateHeat(board, station, plan)!;
  const verdict = judgeHeat(board, plan, run);

  test('lifts only after the coldest joint is molten', () => {
    const curve = run.parts.find((p) => p.ref === 'U4')!;
    expect(curve.jointMinC[Math.floor(verdict.reachedAtS!)]).toBeLessThan(verdict.reachC);
    expect(curve.jointMinC[verdict.actAtS!]).toBeGreaterThan(verdict.reachC);
    expect(verdict.headline).toBe(`Cover U9, lift U4 at ${verdict.actAtS} s, not before`);
  });

  test('names the neighbour with the least margin first', () => {
    const margins = verdict.neighbours.map((n) => n.limitC - n.peakC);
    expect(margins).toEqual([...margins].sort((a, b) => a - b));
    expect(verdict.neighbours.map((n) => n.ref)).toContain('U9');
  });

  test('a neighbour that gets too hot stands in the headline', () => {
    const longer = { ...plan, covers: [], steps: plan.steps.map((s, i) => (i === 2 ? { ...s, durationS: 60 } : s)) };
    const words = judgeHeat(board, longer, simulateHeat(board, station, longer, { frames: false })!);
    expect(words.holds).toBe(false);
    expect(words.headline).toMatch(/^Lift U4 at \d+ s, but \w+ gets too hot$/);
    expect(words.sentence).toMatch(/ But /);
  });

  test('says so when nothing melts', () => {
    const cold = constantDial('U4', 200);
    const words = judgeHeat(board, cold, simulateHeat(board, station, cold, { frames: false })!);
    expect(words.reachedAtS).toBeNull();
    expect(words.headline).toBe('U4 does not melt');
    expect(words.holds).toBe(false);
  });

  test('an evenly sampled frame keeps the extremes of the cells and leaves the cut corner empty', () => {
    const frame = run.frames[60];
    const even = evenField(run, frame, 240, 168);
    const cells = frame.filter((t) => !Number.isNaN(t));
    const samples = even.tempsC.filter((t) => !Number.isNaN(t));
    expect(Math.max(...samples)).toBeLessThanOrEqual(Math.max(...cells) + 1e-3);
    expect(Math.max(...samples)).toBeGreaterThan(Math.max(...cells) - 3);
    expect(Number.isNaN(even.tempsC[168 * 240 - 1])).toBe(true);
    expect(Number.isNaN(even.tempsC[0])).toBe(false);
  });
});
