import { demoBoard } from '../../../../demo/files';
import { targetName } from '../../diagnose';
import { statsOf } from '../../reference';
import { BenchPlay } from '../tests/bench-play';

const heron = demoBoard('heronlog-4-c');
const silent = ['look j1 good', 'usb a 5.02 0.06', 'usb b 5.02 0.06', 'pack out', 'out'];

test('the best tests come with what they would say, their minutes and what to type', () => {
  const { tests } = new BenchPlay(heron).type(...silent).view;
  expect(tests.length).toBeGreaterThanOrEqual(3);
  for (const t of tests) {
    expect(t.minutes).toBeGreaterThan(0);
    expect(t.bits).toBeGreaterThan(0);
    expect(t.stem.length).toBeGreaterThan(2);
  }
  expect(tests[0].stem).toMatch(/^tp[78] ohm $/);
  expect(tests[0].outlook.length).toBeGreaterThan(0);
});

test('what would change the mind names another part than the one that leads', () => {
  const { rankingFlips: turns, suspects } = new BenchPlay(heron).type(...silent).view;
  expect(turns.length).toBeGreaterThan(0);
  for (const turn of turns) expect(turn).not.toContain(`then ${suspects[0].ref},`);
});

test('once a part is new, what it was suspected of counts as mended', () => {
  const before = new BenchPlay(heron).type(...silent, 'tp7 1.6');
  expect(before.view.curedChance).toBeLessThan(0.01);
  const suspected = before.chance('U4');
  const after = before.type('off u4', 'on u4 new');
  // Not all of it: U4 may have been at fault together with another part, and the new one may be bad.
  expect(after.view.curedChance).toBeLessThanOrEqual(suspected);
  expect(after.view.curedChance).toBeGreaterThan(0.7 * suspected);
});

test('a new part that measures well again confirms the cure', () => {
  const job = new BenchPlay(heron).type(...silent, 'tp7 1.6', 'off u4', 'on u4 new');
  const before = job.view.curedChance;
  job.type('tp7 6.6k', 'tp7 6.5k', 'usb a 15 0.6', 'usb b 15 0.6');
  expect(job.view.curedChance).toBeGreaterThan(before);
  // What is left is a second fault that no function was tried for, and what no list holds.
  expect(job.view.curedChance).toBeGreaterThan(0.85);
});

test('repairs leave out what is done', () => {
  const job = new BenchPlay(heron).type(...silent, 'tp7 1.6', 'off u4', 'on u4 new');
  const { repairs } = job.view;
  expect(repairs.every((r) => r.targets.every((t) => targetName(t) !== 'U4') || r.cureChance < 0.2)).toBe(true);
});

test('a pack connector that reads half a volt speaks for the charge path', () => {
  const job = new BenchPlay(heron).type('look j1 good', 'usb a 15 0.03', 'pack out', 'pack 0.5');
  const path = ['U2', 'Q2', 'L1', 'Q1', 'VPACK', 'VSYS', 'VIN', 'CHG5', 'J2'];
  const share = job.view.suspects.filter((s) => path.includes(s.ref)).reduce((sum, s) => sum + s.p, 0);
  expect(share).toBeGreaterThan(0.6);
});

test('the bench’s references narrow what a contact’s reading means', () => {
  const job = new BenchPlay(heron).type('look j1 good', 'a5 0.245');
  expect(job.view.readings.at(-1)!.meaning.state).toBe('good');
  const references = { 'pin:J1:A5': statsOf([0.261, 0.262, 0.263, 0.262, 0.261]) };
  const knowing = new BenchPlay(heron, {}, { references }).type('look j1 good', 'a5 0.245');
  expect(knowing.view.readings.at(-1)!.meaning).toMatchObject({ state: 'bad' });
});
