import { foldJob, liveEvents, takenOnBoardAsIs, type EventBody, type JobEvent } from '.';

const event = (seq: number, body: EventBody, replaces?: number): JobEvent => ({
  seq,
  at: `2026-11-24T08:00:${String(seq).padStart(2, '0')}.000Z`,
  bench: 'Bench 1',
  actor: 'Bench lead',
  body,
  replaces,
});
const ohm = (net: string, value: number): EventBody => ({
  kind: 'reading',
  measurement: { kind: 'groundResistance', net },
  value: { kind: 'figure', value },
});
const STORY: EventBody = {
  kind: 'story',
  symptom: 'dead',
  history: [],
  dataMatters: false,
  locked: false,
  consent: true,
  pack: 'sound',
};

test('readings carry the state of the board at their moment', () => {
  const state = foldJob([
    event(1, STORY),
    event(2, ohm('AON33', 1.6)),
    event(3, { kind: 'partOff', ref: 'U4' }),
    event(4, ohm('AON33', 6600)),
    event(5, { kind: 'partOn', ref: 'U4', fresh: true }),
    event(6, ohm('AON33', 6600)),
  ]);
  expect(state.readings.map((r) => [r.absent, r.replaced])).toEqual([
    [[], []],
    [['U4'], []],
    [[], ['U4']],
  ]);
  expect(state.readings.map((r) => takenOnBoardAsIs(state, r))).toEqual([false, false, true]);
  expect(state.access).toBe('out');
});

test('undo takes the last entry out and keeps it in the record', () => {
  const events = [
    event(1, STORY),
    event(2, ohm('AON33', 1)),
    event(3, ohm('PD18', 2)),
    event(4, { kind: 'undo', seq: 3 }),
  ];
  expect(foldJob(events).readings.map((r) => r.seq)).toEqual([2]);
  expect(foldJob(events).undoable!.seq).toBe(2);
  expect(foldJob(events.slice(0, 1)).undoable).toBeUndefined();
});

test('a correction stands where the corrected reading stood, so that the board’s state then applies', () => {
  const events = [
    event(1, STORY),
    event(2, ohm('AON33', 1.6)),
    event(3, { kind: 'partOff', ref: 'U4' }),
    event(4, ohm('AON33', 2.6), 2),
  ];
  const [reading] = foldJob(events).readings;
  expect(reading).toMatchObject({ seq: 4, value: { value: 2.6 }, absent: [] });
});

test('undoing a correction brings the corrected reading back; a correction of a correction follows its root', () => {
  const twice = [
    event(1, STORY),
    event(2, ohm('AON33', 1)),
    event(3, ohm('AON33', 2), 2),
    event(4, ohm('AON33', 3), 3),
  ];
  expect(foldJob(twice).readings.map((r) => r.seq)).toEqual([4]);
  expect(foldJob([...twice, event(5, { kind: 'undo', seq: 4 })]).readings.map((r) => r.seq)).toEqual([3]);
  expect(liveEvents(twice).map((e) => e.seq)).toEqual([1, 4]);
});

test('a rewritten image mends only the image', () => {
  const state = foldJob([event(1, STORY), event(2, { kind: 'imageWritten', ref: 'U9', sha256: 'a'.repeat(64) })]);
  expect(state.replaced).toEqual(['U9/image']);
});

test('closing can be undone: the job is open again', () => {
  const closed = [event(1, STORY), event(2, { kind: 'close', outcome: 'stopped', cause: '' })];
  expect(foldJob(closed).closed).toBeDefined();
  expect(foldJob([...closed, event(3, { kind: 'undo', seq: 2 })]).closed).toBeUndefined();
});
