/** "Why not mine?": the proposed test costs nothing against itself, a worse one says by how much, and nothing is kept of either. */
import { demoBoard } from '../../../../demo/files';
import { DEFAULT_PRACTICE, Predictor, measurementTitle, type Measurement } from '../../diagnose';
import { problemText } from '../../result';
import { decide } from '../decide/decide';
import { completeEntry, isQuestion, parseEntry } from '../entry/grammar';
import { BenchPlay } from '../tests/bench-play';
import { rankJob } from './analysis';
import { snapshotOf } from './snapshot';
import { whyNotMine } from './why-not-mine';

const heron = demoBoard('heronlog-4-c');
const play = new BenchPlay(heron).type('look j1 good', 'usb a 5.02 0.06', 'usb b 5.01 0.06', 'pack out', 'out');
const job = { ...snapshotOf(31, '2026-11-24T08:00:00.000Z', heron, []), state: play.view.state };
const { ranked } = rankJob(Predictor.of(heron), job.state, DEFAULT_PRACTICE);

function asked(text: string): Measurement {
  const entry = parseEntry(heron, job.state, text, 'ohm');
  if (!entry.ok || entry.value.command.do !== 'weigh') throw new Error(`Expected a question; got "${text}".`);
  return entry.value.command.measurement;
}

test('what is proposed is told as that; any other test is never better than the best by more than what counts as equal', () => {
  const [first] = ranked.tests;
  const own = whyNotMine(job, first.measurement);
  expect(own.expectedMinutes).toBeCloseTo(first.expectedMinutes!, 9);
  expect(own.bits).toBeCloseTo(first.bits, 9);
  expect(own.answer).toContain('It is what is proposed.');
  // Near-equal tests are ordered by what they tell and by their place: within 0.4 minutes of the least.
  for (const { measurement } of ranked.tests.slice(1, 8)) {
    const other = whyNotMine(job, measurement);
    expect(other.expectedMinutes).toBeGreaterThan(own.expectedMinutes - 0.4);
    expect(other.answer).toMatch(/^.+: \d\.\d\d bit in .+, job in .+\. /);
  }
});

test('a test that tells nothing costs the job its own minutes', () => {
  const crystal = whyNotMine(job, asked('why xin'));
  expect(crystal.bits).toBeLessThan(0.2);
  expect(crystal.answer).toMatch(/Takes the job \d+\.\d minutes longer than what is proposed\./);
  const longer = Number(/job (\d+\.\d) minutes longer/.exec(crystal.answer)![1]);
  expect(longer).toBeCloseTo(crystal.expectedMinutes - ranked.tests[0].expectedMinutes!, 1);
});

test('what was read already, and what needs a port that is not cleared, is said', () => {
  expect(whyNotMine(job, asked('why usb a')).answer).toContain('It was read on the board as it is.');
  const unlooked = { ...job, state: new BenchPlay(heron).view.state };
  expect(whyNotMine(unlooked, asked('why usb a')).answer).toContain('the port is not cleared for power yet');
});

test.each([
  ['why tp7', 'ohm', { kind: 'groundResistance', net: 'AON33' }],
  ['why tp7', 'volt', { kind: 'railVoltage', rail: 'AON33' }],
  ['WHY C14', 'ohm', { kind: 'groundResistance', net: 'AON33' }],
  ['why cc1 drop', 'ohm', { kind: 'diodeDrop', net: 'CC1' }],
  ['why f1', 'ohm', { kind: 'seriesResistance', ref: 'F1', line: '' }],
  ['why usb b', 'ohm', { kind: 'usbMeter', port: 'J1', side: 'B' }],
  ['why look j1', 'ohm', { kind: 'visualInspection', ref: 'J1' }],
  ['why tp7 1.8 ohm', 'ohm', { kind: 'groundResistance', net: 'AON33' }],
] as const)('%s, in %s, asks about that test', (text, mode, measurement) => {
  const entry = parseEntry(heron, job.state, text, mode);
  expect(entry.ok && entry.value.command).toEqual({ do: 'weigh', measurement });
  expect(entry.ok && entry.value.echo).toBe(
    `Weighs it against what is proposed: ${measurementTitle(heron, measurement as unknown as Measurement)}`,
  );
});

test('a question is known by its word, completed like a reading, refused with a sentence, and leads to no event', () => {
  expect(['why tp7', ' WHY', 'whynot tp7', 'note why'].map(isQuestion)).toEqual([true, true, false, false]);
  expect(completeEntry(heron, job.state, 'why tp')).toEqual(['tp1', 'tp2', 'tp3', 'tp4', 'tp5', 'tp6']);
  for (const text of ['why', 'why nothing', 'why note hello', 'why why']) {
    const entry = parseEntry(heron, job.state, text, 'ohm');
    expect(entry.ok ? '' : problemText(entry.problems)).toMatch(/^Expected a test of this board after "why"/);
  }
  expect(decide(job, { do: 'weigh', measurement: asked('why tp7') })).toEqual({ ok: true, value: [] });
});
