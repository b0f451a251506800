import { demoBoard } from '../../../demo/files';
import { aimPlan } from './aim';
import { GOALS_BY_ALLOY, dialRangeC, goalSetsSchema, packageCeilingC } from './goals';
import { startingPlan } from './plan';
import { simulateHeat } from './simulate';
import { NOMINAL_STATION } from './station';
import { judgeHeat } from './verdict';

test.each([
  // J-STD-020 classification temperatures (from memory): thickness, volume in mm³, lead-free, tin-lead.
  [1.0, 100, 260, 235],
  [1.0, 1000, 260, 220],
  [1.0, 3000, 260, 220],
  [2.0, 100, 260, 235],
  [2.0, 1000, 250, 220],
  [2.0, 3000, 245, 220],
  [3.0, 100, 250, 220],
  [3.0, 1000, 245, 220],
  [3.0, 3000, 245, 220],
])(
  'a package %p mm thick of %p mm³ stands %p °C lead-free and %p °C tin-lead',
  (heightMm, volume, leadFree, tinLead) => {
    const side = Math.sqrt(volume / heightMm);
    const pkg = { bodyMm: [side, side] as const, heightMm };
    expect(packageCeilingC('leadFree', pkg)).toBe(leadFree);
    expect(packageCeilingC('tinLead', pkg)).toBe(tinLead);
  },
);

test('the bench’s own set moves the limits that the board file leaves open, and a rise can be made to count', () => {
  const board = demoBoard('heronlog-4-c');
  const plan = startingPlan('U4', 'SAC305', 6);
  const run = simulateHeat(board, NOMINAL_STATION, plan, { frames: false })!;
  const usual = judgeHeat(board, plan, run);
  const strict = judgeHeat(board, plan, run, {
    ...GOALS_BY_ALLOY.SAC305,
    neighbourUnderSolidusK: 25,
    riseLimitCPerS: 1,
  });
  const own = new Set(board.parts.filter((p) => p.jointLimitC !== undefined).map((p) => p.ref));
  for (const n of strict.neighbours.filter((n) => n.limited === 'joints')) {
    const was = usual.neighbours.find((u) => u.ref === n.ref)!;
    expect(n.limitC).toBe(own.has(n.ref) ? was.limitC : was.limitC - 15);
  }
  expect(strict.holds).toBe(false);
});

test('sets that are left out are the usual ones; nonsense is refused', () => {
  expect(goalSetsSchema.parse({})).toEqual(GOALS_BY_ALLOY);
  expect(goalSetsSchema.safeParse({ SAC305: { ...GOALS_BY_ALLOY.SAC305, plasticLimitC: 'hot' } }).success).toBe(false);
});

describe('what an alloy asks for', () => {
  const board = demoBoard('heronlog-4-c');
  const run = (alloy: 'SAC305' | 'Sn63Pb37' | 'Sn42Bi58') => {
    const plan = { ...startingPlan('U4', alloy, 6), alloy };
    return judgeHeat(board, plan, simulateHeat(board, NOMINAL_STATION, plan, { fineMm: 1, frames: false })!);
  };

  test('leaded joints: the tin-lead ceiling, and neighbours 10 K under 183', () => {
    const verdict = run('Sn63Pb37');
    // The board file’s own limit of the body stands before the table; a part without one takes the table’s.
    const own = board.parts.find((p) => p.ref === 'U4')!.bodyLimitC;
    expect(verdict.bodyLimitC).toBe(own);
    expect(packageCeilingC('tinLead', board.packages.QFN40)).toBe(235);
    expect(verdict.neighbours.find((n) => n.ref === 'U9')!.limitC).toBe(173);
  });

  test('low-melt joints melt first, lead-free ones last', () => {
    const [bismuth, leaded, leadFree] = (['Sn42Bi58', 'Sn63Pb37', 'SAC305'] as const).map((a) => run(a).reachedAtS!);
    expect(bismuth).toBeLessThan(leaded);
    expect(leaded).toBeLessThan(leadFree);
  });

  test('a limit for this plan stands before the file’s and the set’s, and can accept what would not hold', () => {
    const plan = startingPlan('U4', 'SAC305', 6);
    const curves = simulateHeat(board, NOMINAL_STATION, plan, { fineMm: 1, frames: false })!;
    const limitOf = (ref: string, limitsC: Record<string, number>) =>
      judgeHeat(board, { ...plan, limitsC }, curves).neighbours.find((n) => n.ref === ref);
    expect(limitOf('U8', {})!.limitC).toBe(207);
    expect(limitOf('U8', { U8: 260 })).toMatchObject({ limitC: 260, holds: true });
    // A small part is judged only where it has a limit.
    expect(limitOf('C14', {})).toBeUndefined();
    expect(limitOf('C14', { C14: 60 })).toMatchObject({ limitC: 60, holds: false });
  });
});

test('a plan asks for no hotter dial than the bench allows, nor than the station has', () => {
  const goals = { ...GOALS_BY_ALLOY.SAC305, dialLimitC: 400 };
  expect(dialRangeC(NOMINAL_STATION, goals)).toEqual([100, 400]);
  expect(dialRangeC(NOMINAL_STATION, GOALS_BY_ALLOY.SAC305)).toEqual([100, 480]);
  expect(dialRangeC({ setC: [100, 350] }, goals)).toEqual([100, 350]);
  const board = demoBoard('heronlog-4-c');
  const weak = { ...NOMINAL_STATION, multiplier: 0.4, outletEfficiency: 0.75 };
  const hottest = (limit: number | null): number => {
    const { plan } = aimPlan(board, weak, startingPlan('U4', 'SAC305', 4), { ...goals, dialLimitC: limit });
    return Math.max(...plan.steps.map((s) => s.airSetC ?? 0));
  };
  expect(hottest(null)).toBeGreaterThan(400);
  expect(hottest(400)).toBe(400);
});

test('sets that were kept before there was a dial limit are read without one', () => {
  const before = JSON.parse(JSON.stringify({ ...GOALS_BY_ALLOY.SAC305, dialLimitC: undefined }));
  expect(before).not.toHaveProperty('dialLimitC');
  expect(goalSetsSchema.parse({ SAC305: before }).SAC305.dialLimitC).toBeNull();
});
