/** Lines for the record: what is promised, waited for and told, each with what it is refused for. */
import { demoBoard } from '../../../../demo/files';
import { problemText } from '../../result';
import { decide } from '../decide/decide';
import { record } from '../decide/command';
import { eventLabel } from '../assessment/event-label';
import { foldJob, type EventBody } from '../log';
import { recordedBy } from '../tests/typed';
import { BenchPlay } from '../tests/bench-play';
import { completeEntry, parseEntry } from './grammar';

const heron = demoBoard('heronlog-4-c');
const empty = new BenchPlay(heron);

function body(text: string, state = empty.state): EventBody {
  const entry = parseEntry(heron, state, text, 'ohm');
  if (!entry.ok) throw new Error(problemText(entry.problems));
  return recordedBy(entry.value);
}
function problem(text: string, state = empty.state): string {
  const entry = parseEntry(heron, state, text, 'ohm');
  return entry.ok ? '' : problemText(entry.problems);
}

test.each([
  ['promise 2026-12-01', { kind: 'promise', byAt: '2026-12-01T17:00:00.000+00:00' }],
  ['promise 2026-12-01 12:30', { kind: 'promise', byAt: '2026-12-01T12:30:00.000+00:00' }],
  ['promise off', { kind: 'promise', byAt: null }],
  ['awaits 2026-12-02 donor board', { kind: 'delivery', what: 'donor board', byAt: '2026-12-02T12:00:00.000+00:00' }],
  [
    'AWAITS 2028-02-29  the owner’s word',
    { kind: 'delivery', what: 'the owner’s word', byAt: '2028-02-29T12:00:00.000+00:00' },
  ],
  ['quote 120.50', { kind: 'quote', state: 'sent', price: 120.5 }],
] as const)('%s', (text, expected) => expect(body(text)).toEqual(expected));

test.each([
  ['promise', 'Expected a day such as 2026-12-01 after "promise"; got "".'],
  ['promise 2026-02-30', 'got "2026-02-30"'],
  ['promise 2026-12-01 25:00', 'got "2026-12-01 25:00"'],
  ['awaits', 'Expected a day and up to 120 letters of what is expected then'],
  ['awaits 2026-12-02', 'such as: awaits 2026-12-02 donor board; got "2026-12-02"'],
  ['awaits donor board', 'got "donor board"'],
  ['awaits 2026-02-30 donor board', 'got "2026-02-30 donor board"'],
  [`awaits 2026-12-02 ${'x'.repeat(121)}`, 'up to 120 letters'],
  ['awaits here', 'Nothing is waited for.'],
  ['quote 0', 'Expected a price from 0.01 to 1,000,000; got 0.'],
  ['quote soon', 'got "soon"'],
])('%s is refused with a sentence', (text, sentence) => expect(problem(text)).toContain(sentence));

test('a delivery is waited for until it is here; the day may be moved meanwhile', () => {
  const stateAfter = (line: string) => empty.type(line).state;
  const waits = stateAfter('awaits 2026-12-02 donor board');
  expect(waits.delivery).toMatchObject({ what: 'donor board', byAt: '2026-12-02T12:00:00.000+00:00' });
  const moved = stateAfter('awaits 2026-12-05 donor board');
  expect(moved.delivery!.byAt).toBe('2026-12-05T12:00:00.000+00:00');
  const here = body('awaits here', moved);
  expect(here).toEqual({ kind: 'delivery', what: 'donor board', byAt: null });
  const event = { seq: 1, at: '2026-11-24T08:00:00.000Z', bench: 'Bench 1', actor: 'Mira' };
  const labels = [here, body('awaits 2026-12-02 donor board')].map((b) => eventLabel(heron, { ...event, body: b }));
  expect(labels).toEqual(['donor board is here', 'waits for donor board, expected 2026-12-02']);
  expect(completeEntry(heron, moved, 'awaits h')).toEqual(['here']);
});

test('what is not waited for cannot come, by whatever door; a job that comes back waits for nothing', () => {
  const here = record({ kind: 'delivery', what: 'donor board', byAt: null });
  expect(decide({ board: heron, state: new BenchPlay(heron).state }, here).ok).toBe(false);
  const events = [
    { kind: 'delivery', what: 'donor board', byAt: '2026-12-02T12:00:00.000+00:00' },
    { kind: 'close', outcome: 'stopped', cause: '' },
    { kind: 'reopen', symptom: 'dead again' },
  ].map((b, i) => ({
    ...{ seq: i + 1, at: '2026-11-24T08:00:00.000Z', bench: 'Bench 1', actor: 'Mira' },
    body: b as EventBody,
  }));
  expect(foldJob(events.slice(0, 1)).delivery?.what).toBe('donor board');
  expect(foldJob(events).delivery).toBeUndefined();
});
