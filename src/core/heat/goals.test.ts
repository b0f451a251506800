import { demoBoard } from '../../../demo/files';
import { GOALS_BY_ALLOY, goalSetsSchema, packageCeilingC } from './goals';
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
