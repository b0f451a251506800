/** A job line by line, as the command line and other people's simulators play it. */
import { demoBoard } from '../../../demo/files';
import { Predictor } from './predictor';
import {
  DiagnoseSession,
  sessionAnswerSchema,
  sessionLineSchema,
  type SessionAnswer,
  type SessionLine,
} from './session';

const predictor = Predictor.of(demoBoard('heronlog-4-c'));

/** Plays lines and gives the answer to the last one; a line that is refused ends the test. */
function played(...lines: SessionLine[]): SessionAnswer {
  const session = new DiagnoseSession(predictor);
  for (const line of lines) {
    const noted = session.note(sessionLineSchema.parse(line));
    if (!noted.ok) throw new Error(noted.problems[0].message);
  }
  return sessionAnswerSchema.parse(session.answer());
}

const ohm = (net: string, value: number): SessionLine => ({
  reading: { measurement: { kind: 'groundResistance', net }, value: { kind: 'figure', value } },
});
const usb = (side: 'A' | 'B', volts: number, amps: number): SessionLine => ({
  reading: { measurement: { kind: 'usbMeter', port: 'J1', side }, value: { kind: 'pair', volts, amps } },
});
const tried = (fn: string, works: boolean): SessionLine => ({
  reading: { measurement: { kind: 'functionTest', fn }, value: { kind: works ? 'pass' : 'fail' } },
});
const shorted = [usb('A', 5.02, 0.06), usb('B', 5.02, 0.06), ohm('AON33', 1.6), ohm('PD18', 1.7)];

test('with nothing known the meter at the port comes first, and nothing that needs the board out', () => {
  const { step } = played();
  expect(step).toMatchObject({ kind: 'test', measurement: { kind: 'usbMeter' } });
});

test('two supplies of one chip shorted: that chip, with its odds; after the swap it is cured, and no suspect', () => {
  const before = played(...shorted);
  expect(before.suspects[0]).toMatchObject({ ref: 'U4' });
  expect(before.cured).toEqual([]);
  const after = played(...shorted, { work: { kind: 'part', ref: 'U4' } }, ohm('AON33', 6600), ohm('PD18', 9000));
  expect(after.cured[0].words).toContain('U4');
  expect(after.suspects.filter((s) => s.ref === 'U4').every((s) => s.words.startsWith('New U4'))).toBe(true);
});

test('one plug way dead after the swap: the joint of that line, or the look at it, before another chip', () => {
  const { step, cured, suspects } = played(
    ...shorted,
    { work: { kind: 'part', ref: 'U4' } },
    ohm('AON33', 6600),
    ohm('PD18', 9000),
    { proof: 'failed' },
    usb('A', 15, 0.6),
    usb('B', 5.02, 0.01),
  );
  expect(step.kind).toBe('test');
  if (step.kind !== 'test') return;
  const { measurement: m } = step;
  const isAtJoint = (m.kind === 'jointDrop' && m.ref === 'U4' && m.pin === '2') || m.kind === 'jointLook';
  // The contact of the port that carries the line is as quick, and just as much no swap.
  const isAtContact = m.kind === 'contactDrop' && m.pin === 'B5';
  expect(isAtJoint || isAtContact).toBe(true);
  expect(cured.some((s) => s.words.includes('AON33'))).toBe(true);
  const words = suspects.map((s) => s.words).join('\n');
  expect(words).toContain('New U4');
  expect(words).toMatch(/D2 .*CC2|J1 .*CC2/);
});

test('a part replaced twice is a new part each time, and none of its old faults is a suspect', () => {
  const swap: SessionLine = { work: { kind: 'part', ref: 'U4' } };
  const { suspects, step } = played(...shorted, swap, { proof: 'failed' }, swap, { proof: 'failed' });
  const own = suspects.filter((s) => s.ref === 'U4');
  expect(own.every((s) => s.words.startsWith('New U4, second one'))).toBe(true);
  expect(step).not.toMatchObject({ kind: 'work', work: { kind: 'part', ref: 'U4' } });
});

test('readings that nothing listed explains: one is taken again before any work, then it is said', () => {
  // Every supply reads a few hundred ohms, no list says why; with power everything is as it should be.
  const odd = ['VIN', 'VSYS', 'V33', 'V5', 'CHG5'].map((net) => ohm(net, 37));
  const first = played(...odd);
  expect(first.step.kind).toBe('again');
  expect(first.misfit!.p).toBeLessThan(0.01);
  const again = played(
    ...odd,
    ...odd
      .map((line) => line.reading!)
      .map(({ measurement }) => ({
        reading: { measurement, value: { kind: 'figure' as const, value: 36 } },
      })),
  );
  expect(again.noneListed).toBe(true);
  expect(again.misfit!.strange.length).toBeGreaterThan(0);
});

test('the same reading over and over never raises the share of the unlisted', () => {
  for (const value of [1.6, 37, 900, 6600]) {
    const shares = [1, 2, 6].map(
      (times) => played(...Array.from({ length: times }, () => ohm('AON33', value))).unlisted.p,
    );
    expect(shares[1]).toBeLessThanOrEqual(shares[0] + 1e-12);
    expect(shares[2]).toBeLessThanOrEqual(shares[0] + 1e-12);
  }
});

test('the order of independent readings does not matter', () => {
  const lines = [...shorted, tried('charge', false), ohm('VSYS', 9000), tried('sensor-supply', false)];
  const one = played(...lines);
  const other = played(...[...lines].reverse());
  const odds = ({ suspects }: SessionAnswer): string[] => suspects.map((s) => `${s.words} ${s.p.toFixed(9)}`).sort();
  expect(odds(other)).toEqual(odds(one));
  expect(other.unlisted.p).toBeCloseTo(one.unlisted.p, 9);
  expect(other.misfit!.p).toBeCloseTo(one.misfit!.p, 1);
});

test('a passed proof ends the job, a failed one rules out that nothing is wrong', () => {
  expect(played(...shorted, { work: { kind: 'part', ref: 'U4' } }, { proof: 'passed' }).step).toMatchObject({
    kind: 'done',
  });
  const chance = (answer: SessionAnswer): number => answer.suspects.find((s) => s.ref === 'outside')?.p ?? 0;
  const sound = [usb('A', 15, 0.6), usb('B', 15, 0.6), tried('charge', true)];
  expect(chance(played(...sound, { proof: 'failed' }))).toBeLessThan(0.5 * chance(played(...sound)));
});

test('"why not mine?" weighs a typed test against the proposed one in bits and minutes', () => {
  const session = new DiagnoseSession(predictor);
  const taken = session.take({ why: { kind: 'groundResistance', net: 'XIN' } });
  if (!taken.ok) throw new Error('refused');
  const { why, step } = taken.value;
  expect(step.kind).toBe('test');
  expect(why!.minutes).toBeGreaterThan(0);
  expect(why!.expectedMinutes).toBeGreaterThanOrEqual((step as { expectedMinutes: number }).expectedMinutes - 0.4);
  expect(why!.words).toMatch(/minutes longer|As good/);
});

test.each<[SessionLine, RegExp]>([
  [{ work: { kind: 'part', ref: 'U99' } }, /^Expected something of this board to work on; got "U99"/],
  [{ off: 'U99' }, /^Expected a part of this board; got "U99"/],
  [{ on: 'U4' }, /^Expected a part that is off the board; got "U4"/],
  [ohm('NOWHERE', 3), /^Expected a net of this board; got "NOWHERE"/],
])('a line that does not speak of this board is refused and changes nothing: %j', (line, problem) => {
  const session = new DiagnoseSession(predictor);
  const before = session.answer();
  const taken = session.take(line);
  expect(taken.ok).toBe(false);
  if (!taken.ok) expect(taken.problems[0].message).toMatch(problem);
  expect(session.answer()).toEqual(before);
});
