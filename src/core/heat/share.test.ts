import Papa from 'papaparse';
import { demoBoard, demoStations } from '../../../demo/files';
import { problemText } from '../result';
import { startingPlan } from './plan';
import { curvesCsv, planLink, planOfLink } from './share';
import { simulateHeat } from './simulate';

const plan = { ...startingPlan('U4', 'SAC305', 4), covers: ['U9'], limitsC: { U9: 190 } };

test('the CSV holds every curve of every part at whole seconds', () => {
  const run = simulateHeat(demoBoard('heronlog-4-c'), demoStations()[0], plan, { frames: false })!;
  const { data, errors } = Papa.parse<Record<string, string>>(curvesCsv(run).trim(), { header: true });
  expect(errors).toEqual([]);
  expect(data).toHaveLength(run.timesS.length);
  expect(Object.keys(data[0])).toHaveLength(1 + 4 * run.parts.length);
  const u4 = run.parts.find((p) => p.ref === 'U4')!;
  expect(Number(data[60]['U4_joint_min_C'])).toBeCloseTo(u4.jointMinC[60], 2);
  expect(data[60].time_s).toBe('60');
});

test('a plan comes back from its address as it was', () => {
  const query = new URLSearchParams(planLink(plan, 'bench-1'));
  expect(query.get('station')).toBe('bench-1');
  expect(planOfLink(query.get('plan')!)).toEqual({ ok: true, value: plan });
});

test.each([
  ['{half', /not JSON/],
  ['{"partRef":"U4"}', /Expected a heat plan in the address; /],
  [JSON.stringify({ ...plan, steps: [] }), /steps/],
])('an address with %s is explained', (text, words) => {
  const read = planOfLink(text);
  expect(!read.ok && problemText(read.problems)).toMatch(words);
});
