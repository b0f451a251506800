import { demoBoard, demoStations } from '../../../demo/files';
import { adviceOn } from './advice';
import { startingPlan, type HeatPlan } from './plan';
import { simulateHeat } from './simulate';
import type { Station } from './station';
import { crossing, judgeHeat } from './verdict';

const board = demoBoard('heronlog-4-c');
const [station] = demoStations();

function words(plan: HeatPlan, on: Station = station): { said: string[]; run: ReturnType<typeof simulateHeat> } {
  const run = simulateHeat(board, on, plan, { frames: false })!;
  return { said: adviceOn(board, on, plan, run, judgeHeat(board, plan, run)).map((a) => a.message), run };
}

const start = startingPlan('U4', 'SAC305', 4);
const constant = (airSetC: number, more: Partial<HeatPlan> = {}): HeatPlan => ({
  ...start,
  steps: [{ name: 'heat', durationS: 60, airSetC, flowLpm: 20, heightMm: 12 }],
  ...more,
});

test('a full dial from cold is too fast, with the rate it comes from', () => {
  const plan = constant(480, { nozzleMm: 8 });
  const fast = { ...plan, steps: [{ ...plan.steps[0], flowLpm: 50, heightMm: 6 }] };
  expect(words(fast).said[0]).toMatch(/^Too fast: \d+\.\d °C\/s at the joints, 3 is the usual limit/);
  expect(words(constant(110)).said.join()).not.toMatch(/Too fast/);
});

test('air that never gets there wants a plate; a station without one is not told so', () => {
  expect(words(constant(230)).said).toContainEqual(expect.stringMatching(/^A plate is wanted: air alone never/));
  expect(words(constant(230), { ...station, plate: null }).said.join()).not.toMatch(/plate/);
});

test('a plate that starts cold cools the part now', () => {
  const said = words({ ...start, plateSetC: 150, plateReady: false }).said;
  expect(said).toContainEqual(expect.stringMatching(/^The plate cools the part now: it starts at 22 °C/));
  expect(words({ ...start, plateSetC: 150 }).said.join()).not.toMatch(/cools the part/);
});

test('what swims is named with its second, as the curve has it', () => {
  const { said, run } = words(constant(470, { nozzleMm: 6 }));
  const swim = said.find((w) => w.includes('will swim'))!;
  const [, ref, second] = /^(\w+) will swim at second (\d+)/.exec(swim)!;
  const at = crossing(run!.timesS, run!.parts.find((p) => p.ref === ref)!.jointMaxC, 217)!;
  expect(Math.round(at)).toBe(Number(second));
});

test('a nozzle wider than part and room is told with both figures; a narrow one is not', () => {
  expect(words({ ...start, nozzleMm: 10 }).said).toContainEqual(
    expect.stringMatching(/^This nozzle is too large for that clearance: 10 mm over \d+\.\d mm/),
  );
  expect(words(start).said.join()).not.toMatch(/too large/);
});

test('guards are laid before the air', () => {
  expect(words({ ...start, covers: ['U9'] }).said).toContainEqual(expect.stringMatching(/^U9 covered: lay the guards/));
});
