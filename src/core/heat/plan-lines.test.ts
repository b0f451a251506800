import { demoBoard, demoStations } from '../../../demo/files';
import { problemText } from '../result';
import { nozzleFor, startingPlan } from './plan';
import { completePlanEntry, parsePlanEntry } from './plan-lines';
import { simulateHeat } from './simulate';
import { judgeHeat } from './verdict';

const board = demoBoard('heronlog-4-c');
const [station, plateless] = demoStations();
const plan = startingPlan('U4', 'SAC305', 4);
const edit = (text: string) => parsePlanEntry(board, station, plan, text);

const changed = (text: string) => {
  const result = edit(text);
  if (!result.ok) throw new Error(problemText(result.problems));
  return result.value.plan;
};
const problem = (text: string, at = station): string => {
  const result = parsePlanEntry(board, at, plan, text);
  return result.ok ? '' : problemText(result.problems);
};

test('a step takes any of its settings in one line', () => {
  expect(changed('step 3 380 25s 30l 12mm').steps[2]).toMatchObject({
    airSetC: 380,
    durationS: 25,
    flowLpm: 30,
    heightMm: 12,
  });
  expect(changed('step 4 off').steps[3].airSetC).toBeNull();
});

test('plate, covers, nozzle, alloy and part', () => {
  expect(changed('plate 120').plateSetC).toBe(120);
  expect(changed('cover u9').covers).toEqual(['U9']);
  expect(changed('nozzle 8').nozzleMm).toBe(8);
  expect(changed('alloy leaded').alloy).toBe('Sn63Pb37');
  expect(changed('part u2').partRef).toBe('U2');
  expect(changed('offset -1.5 1').offsetMm).toEqual([-1.5, 1]);
  const beside = parsePlanEntry(board, station, { ...plan, offsetMm: [2, 0] }, 'offset off');
  expect(beside.ok && beside.value.plan.offsetMm).toEqual([0, 0]);
  expect(beside.ok && beside.value.echo).toBe('Nozzle over the middle of the part.');
  // What was beside the middle of one part is over the middle of the next.
  const other = parsePlanEntry(board, station, { ...plan, offsetMm: [2, 0] }, 'part u2');
  expect(other.ok && other.value.plan.offsetMm).toEqual([0, 0]);
  expect(changed('add').steps).toHaveLength(plan.steps.length + 1);
  expect(changed('drop 2').steps).toHaveLength(plan.steps.length - 1);
});

test.each([
  ['step 9 300', 'Expected a step from 1 to 5; got "9".'],
  ['step 3 hot', 'Expected 380, 25s, 30l, 12mm or off; got "hot".'],
  ['step 3 900', 'Expected a dial from 100 to 480 °C on Bench 1 hot air; got 900.'],
  ['step 3 200l', 'Expected a flow from 12 to 60 l/min on Bench 1 hot air; got 200.'],
  ['step 3 2.5s', 'durationS: expected whole seconds.'],
  ['plate 400', 'Expected a plate from 30 to 250 °C; got 400.'],
  ['offset 1', 'Expected millimetres along x and y, such as: offset -1.5 1, or off; got "1".'],
  ['offset left 2', 'Expected millimetres along x and y, such as: offset -1.5 1, or off; got "left 2".'],
  ['offset 0 -10.5', 'Expected up to 10 mm beside the middle along x and y; got 0, -10.5.'],
  ['nozzle 5', 'Expected a nozzle of 4, 6, 8, 10 mm; got "5".'],
  ['cover u4', 'U4 is the part being worked on: expected a neighbour.'],
  ['cover u77', 'Expected a part of this board; got "u77".'],
  [
    'melt it',
    'Expected step, plate, cover, uncover, limit, part, nozzle, alloy, add, drop, for, underfill, softens, sweep, offset or stack; got "melt".',
  ],
])('%p is answered with what was expected', (text, words) => {
  expect(problem(text)).toBe(words);
});

test('a station without a plate says so', () => {
  expect(problem('plate 100', plateless)).toBe('Bench 2 hot air, small pump has no plate.');
});

test('completion offers what can follow', () => {
  expect(completePlanEntry(board, station, plan, 'st')).toEqual(['step', 'stack']);
  expect(completePlanEntry(board, station, plan, 'for s')).toEqual(['site', 'soften']);
  expect(completePlanEntry(board, station, plan, 'underfill ')).toEqual(['edge', 'hard', 'soft', 'unknown']);
  expect(completePlanEntry(board, station, plan, 'nozzle 1')).toEqual(['10']);
  expect(completePlanEntry(board, station, { ...plan, covers: ['U9'] }, 'uncover ')).toEqual(['u9']);
});

test('the nozzle goes with the part: about its width, never wider than needed', () => {
  expect(nozzleFor([4, 6, 8, 10], [6, 6])).toBe(4);
  expect(nozzleFor([4, 6, 8, 10], [10, 10])).toBe(6);
  expect(nozzleFor([4, 6], [30, 30])).toBe(6);
});

test('a neighbour’s limit for this plan is typed, judged, and taken back', () => {
  const typed = parsePlanEntry(board, station, plan, 'limit u9 190');
  if (!typed.ok) throw new Error('expected a plan');
  expect(typed.value).toMatchObject({ plan: { limitsC: { U9: 190 } }, echo: 'U9 stays below 190 °C in this plan.' });
  const back = parsePlanEntry(board, station, typed.value.plan, 'limit u9 off');
  expect(back.ok && back.value.plan.limitsC).toEqual({});
  const run = simulateHeat(board, station, plan, { fineMm: 1, frames: false })!;
  const limitOf = (p: typeof plan): number | undefined =>
    judgeHeat(board, p, run).neighbours.find((n) => n.ref === 'U9')?.limitC;
  expect([limitOf(plan), limitOf(typed.value.plan)]).toEqual([207, 190]);
});

test.each([
  ['limit u99 190', /Expected a part of this board; got "u99"/],
  ['limit u9 900', /Expected a limit from 40 to 400 °C; got 900/],
  ['limit u9 hot', /got "hot"/],
])('%s is explained', (text, words) => {
  const typed = parsePlanEntry(board, station, plan, text);
  expect(!typed.ok && problemText(typed.problems)).toMatch(words);
});
