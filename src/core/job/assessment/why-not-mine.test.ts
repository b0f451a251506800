/** "Why not mine?": the proposed test costs nothing against itself, a worse one says by how much, and nothing is kept of either. */
import { demoBoard } from '../../../../demo/files';
import { DEFAULT_PRACTICE, Predictor, measurementTitle, type Measurement } from '../../diagnose';
import { problemText } from '../../result';
import type { JobQuestion } from '../decide/command';
import { decide } from '../decide/decide';
import { completeEntry, isQuestion, parseEntry } from '../entry/grammar';
import { BenchPlay } from '../tests/bench-play';
import { rankJob } from './analysis';
import { snapshotOf } from './snapshot';
import { answerOf } from './why-not-mine';

const heron = demoBoard('heronlog-4-c');
const play = new BenchPlay(heron).type('look j1 good', 'usb a 5.02 0.06', 'usb b 5.01 0.06', 'pack out', 'out');
const job = { ...snapshotOf(31, '2026-11-24T08:00:00.000Z', heron, []), state: play.state };
const { ranked } = rankJob(Predictor.of(heron), job.state, DEFAULT_PRACTICE);

function asked(text: string): JobQuestion {
  const entry = parseEntry(heron, job.state, text, 'ohm');
  if (!entry.ok) throw new Error(problemText(entry.problems));
  const { command } = entry.value;
  if (command.do !== 'weigh' && command.do !== 'weighWork') throw new Error(`Expected a question; got "${text}".`);
  return command;
}
const about = (measurement: Measurement): string => answerOf(job, { do: 'weigh', measurement });

/** What an answer says of a test. */
function figuresOf(answer: string): { bits: number; jobMinutes: number } {
  const [, bits, jobMinutes] = /: (\d\.\d\d) bit in .+?, job in (\d+) min/.exec(answer)!;
  return { bits: Number(bits), jobMinutes: Number(jobMinutes) };
}

test('what is proposed is told as that; any other test is never better than the best by more than what counts as equal', () => {
  const [first] = ranked.tests;
  const own = about(first.measurement);
  expect(figuresOf(own)).toEqual({
    bits: Number(first.bits.toFixed(2)),
    jobMinutes: Math.round(first.expectedMinutes!),
  });
  expect(own).toContain('It is what is proposed.');
  // Near-equal tests are ordered by what they tell and by their place: within 0.4 minutes of the least.
  for (const { measurement } of ranked.tests.slice(1, 8))
    expect(figuresOf(about(measurement)).jobMinutes).toBeGreaterThan(first.expectedMinutes! - 1);
});

test('a test that tells nothing costs the job its own minutes', () => {
  const crystal = answerOf(job, asked('why xin'));
  expect(figuresOf(crystal).bits).toBeLessThan(0.2);
  const longer = Number(/Takes the job (\d+\.\d) minutes longer than what is proposed\./.exec(crystal)![1]);
  expect(Math.abs(figuresOf(crystal).jobMinutes - ranked.tests[0].expectedMinutes! - longer)).toBeLessThan(0.6);
});

test('what was read already, and what needs a port that is not cleared, is said', () => {
  expect(answerOf(job, asked('why usb a'))).toContain('It was read on the board as it is.');
  const unlooked = { ...job, state: new BenchPlay(heron).state };
  expect(answerOf(unlooked, asked('why usb a'))).toContain('the port is not cleared for power yet');
});

test('work is weighed too: what is proposed, what would take longer, and what nothing asks for', () => {
  const shorted = new BenchPlay(heron, { history: ['unknownCharger'] });
  const { view } = shorted.type(
    'look j1 good',
    'usb a 5.02 0.06',
    'usb b 5.01 0.06',
    'pack out',
    'out',
    'tp7 1.6 ohm',
    'tp8 1.7 ohm',
  );
  const known = { ...job, state: view.state };
  expect(view.workNow!.repair.label).toBe('Replace U4');
  expect(answerOf(known, asked('why replace u4'))).toMatch(
    /^Replace U4: part of the cure \d+ in 100, job in .+\. It is what is proposed\.$/,
  );
  // Alone or with something else: no less than that it cures alone.
  const part = Number(/cure (\d+) in 100/.exec(answerOf(known, asked('why replace u4')))![1]);
  expect(part).toBeGreaterThanOrEqual(Math.floor(100 * view.workNow!.repair.cureChance));
  expect(answerOf(known, asked('why replace u9'))).toMatch(
    /^Replace U9: part of the cure .+, job in .+\. Takes the job \d+\.\d minutes longer/,
  );
  // Once it is replaced, what was wrong with it asks for nothing any more.
  const replaced = { ...job, state: shorted.type('off u4', 'on u4 new').state };
  expect(answerOf(replaced, asked('why touched u4'))).toMatch(/^.+U4.*: part of the cure .+, job in /);
  // A port with nothing amiss to be seen, whose lines are well: cleaning is the longer way.
  expect(answerOf(known, asked('why cleaned j1'))).toMatch(
    /: part of the cure 1 in 100, .+ longer than what is proposed\.$/,
  );
  expect(answerOf(known, { do: 'weighWork', work: 'U77' })).toBe('U77: nothing that is suspected asks for it.');
});

test.each([
  ['why replace u4', { do: 'weighWork', work: 'U4' }],
  ['why on u4 new', { do: 'weighWork', work: 'U4' }],
  ['why touched u4', { do: 'weighWork', work: 'U4/joints' }],
  ['why mended vin', { do: 'weighWork', work: 'VIN' }],
  ['why restored', { do: 'weighWork', work: 'software' }],
] as const)('%s asks about that work', (text, question) => expect(asked(text)).toEqual(question));

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
  for (const text of [
    'why',
    'why nothing',
    'why note hello',
    'why why',
    'why replace',
    'why replace z9',
    'why on u4 same',
  ]) {
    const entry = parseEntry(heron, job.state, text, 'ohm');
    expect(entry.ok ? '' : problemText(entry.problems)).toMatch(/^Expected a test or work on this board after "why"/);
  }
  expect(decide(job, asked('why tp7'))).toEqual({ ok: true, value: [] });
});
