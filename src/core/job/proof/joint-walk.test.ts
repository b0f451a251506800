import { recordedBy } from '../tests/typed';
import { demoBoard } from '../../../../demo/files';
import { partByRef } from '../../board';
import { Predictor, singleFaults, SOUND, type Value } from '../../diagnose';
import { jointsOf } from '../../port';
import { parseEntry } from '../entry/grammar';
import { foldJob } from '../log';
import type { EventBody, JobEvent } from '../log';
import { seatMissing, walkJoints } from './joint-walk';
import { proveJob } from './proof';

const board = demoBoard('heronlog-4-c');
const predictor = Predictor.of(board);

const jobOf = (...bodies: EventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({
    seq: i + 1,
    at: `2026-11-26T10:${String(i).padStart(2, '0')}:00Z`,
    bench: 'B',
    actor: 'A',
    body,
  }));
const off = (ref: string): EventBody => ({ kind: 'partOff', ref });
const on = (ref: string, fresh = true): EventBody => ({ kind: 'partOn', ref, fresh });
const joint = (ref: string, pin: string, value: Value): EventBody => ({
  kind: 'reading',
  measurement: { kind: 'jointDrop', ref, pin },
  value,
});
const figure = (value: number): Value => ({ kind: 'figure', value });

test('a part that was soldered on is walked, from its first joint, and again when it is placed again', () => {
  expect(walkJoints(board, foldJob(jobOf()))).toEqual([]);
  const [first, second] = jointsOf(board, partByRef(board, 'U4')!);
  const begun = [off('U4'), on('U4'), joint('U4', first.pin, figure(board.nets[first.net].diodeV ?? 0))];
  const [walk] = walkJoints(board, foldJob(jobOf(...begun)));
  expect([walk.ref, walk.readCount, walk.next!.pin]).toEqual(['U4', 1, second.pin]);
  // Put back as it was: it was soldered all the same.
  const [again] = walkJoints(board, foldJob(jobOf(...begun, off('U4'), on('U4', false))));
  expect([again.readCount, again.next!.pin]).toEqual([0, first.pin]);
});

test('work elsewhere leaves a walk as it is; a late correction of what was read before does not count for the new part', () => {
  const [first] = jointsOf(board, partByRef(board, 'U4')!);
  const read = joint('U4', first.pin, figure(0.262));
  const elsewhere = foldJob(jobOf(off('U4'), on('U4'), read, off('U7'), on('U7')));
  expect(walkJoints(board, elsewhere).map((w) => [w.ref, w.readCount])).toEqual([
    ['U4', 1],
    ['U7', 0],
  ]);
  const [one, ...rest] = jobOf(read, off('U4'), on('U4'), read);
  const corrected = foldJob([one, ...rest.slice(0, 2), { ...rest[2], replaces: one.seq }]);
  expect(walkJoints(board, corrected)[0].readCount).toBe(0);
});

test('reads every joint of a sound part as good: what is predicted is what is expected', () => {
  const part = partByRef(board, 'U4')!;
  for (const { pin, net } of jointsOf(board, part)) {
    const predicted = predictor.predict({ kind: 'jointDrop', ref: 'U4', pin }, SOUND, new Set(), new Set());
    const [alternative] = predicted.kind === 'values' ? predicted.alternatives : [];
    const [walk] = walkJoints(
      board,
      foldJob(jobOf(off('U4'), on('U4'), joint('U4', pin, figure(alternative.means[0])))),
    );
    expect([net, walk.bad.map((j) => j.verdict!.label)]).toEqual([net, []]);
  }
});

test('a short of a rail is seen at every joint on it', () => {
  const short = singleFaults(board).find((f) => f.effects.some((e) => e.kind === 'shunt' && e.net === 'PD18'))!;
  const pins = jointsOf(board, partByRef(board, 'U4')!).filter((j) => j.net === 'PD18');
  expect(pins.length).toBeGreaterThan(0);
  for (const { pin } of pins) {
    const predicted = predictor.predict({ kind: 'jointDrop', ref: 'U4', pin }, short, new Set(), new Set());
    expect(predicted.kind === 'values' && predicted.alternatives[0].means[0]).toBeLessThan(0.06);
  }
});

test('once begun, the gate asks for every joint, for bad ones to be made good, and for a part that lies flat', () => {
  const joints = jointsOf(board, partByRef(board, 'U9')!);
  const read = joints.map((j) => joint('U9', j.pin, figure(board.nets[j.net].diodeV ?? 0)));
  const gateOf = (...bodies: EventBody[]) =>
    proveJob(predictor, foldJob(jobOf(off('U9'), on('U9'), ...bodies))).gates.find((g) => g.id === 'seat');
  expect(gateOf()).toBeUndefined();
  expect(gateOf(read[0])!.missing).toBe(`U9: 1 of ${joints.length} joints`);
  const lines = joints.findIndex((j) => j.net === 'FCLK');
  const withBad = read.map((r, i) => (i === lines ? joint('U9', joints[i].pin, { kind: 'open' }) : r));
  expect(gateOf(...withBad)!.missing).toContain(`U9 joint ${joints[lines].pin} open`);
  // Touched up and read again: the newest reading counts.
  expect(gateOf(...withBad, read[lines])!.holds).toBe(true);
  const tilted = parseEntry(board, foldJob([]), 'flat u9 10 260 10 260', 'ohm');
  if (!tilted.ok) throw new Error('expected an entry');
  expect(gateOf(...read, recordedBy(tilted.value))!.holds).toBe(false);
  expect(seatMissing([])).toBeUndefined();
});

test.each([
  ['joint u4 3 0.41', 'U4 joint 3'],
  ['joint u4 3 ol', 'open'],
])('%j is read', (text, words) => {
  const entry = parseEntry(board, foldJob([]), text, 'volt');
  expect(entry.ok && entry.value.echo).toContain(words);
});

test.each([
  ['joint u99 3 0.41', 'Expected a part of this board after "joint"; got "u99".'],
  ['joint u4 99 0.41', 'that is connected'],
  ['joint u4 3 12', 'from −3 to 3 V; got 12'],
  ['joint u4 3 4 ohm', 'got ohms'],
  ['joint u4 3', 'Expected a value'],
])('%j is answered with a sentence', (text, words) => {
  const entry = parseEntry(board, foldJob([]), text, 'volt');
  expect(!entry.ok && entry.problems[0].message).toContain(words);
});
