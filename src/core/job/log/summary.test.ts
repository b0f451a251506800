import fc from 'fast-check';
import type { EventBody } from './events/registry';
import { foldJob } from './fold';
import type { JobEvent } from './log';
import { runningSoak } from './soak';
import { summariseLog } from './summary';

const story = (symptom: string, pack: 'sound' | 'swollen' = 'sound'): EventBody => ({
  kind: 'story',
  ...{ symptom, history: [], dataMatters: false, locked: false, consent: true, pack },
});
const log = (...bodies: readonly EventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({
    seq: i + 1,
    at: `2026-11-24T08:${String(i).padStart(2, '0')}:00.000Z`,
    ...{ bench: 'Bench 1', actor: 'Lead', body },
  }));
const close: EventBody = { kind: 'close', outcome: 'repaired', cause: '' };

test('an empty log has nothing to say', () => {
  expect(summariseLog([])).toEqual({ version: 0, symptom: '', marks: '', swollen: false, replaces: false });
});

test('the symptom is the last that counts; what the pack was when it came in stays', () => {
  const events = log(story('bulges', 'swollen'), { kind: 'pack', state: 'out' }, close, {
    kind: 'reopen',
    symptom: 'dead again',
  });
  expect(summariseLog(events)).toMatchObject({ symptom: 'dead again', swollen: true, version: 4 });
  expect(summariseLog(events).outcome).toBeUndefined();
  expect(summariseLog([...events, ...undo(5, 4)])).toMatchObject({ symptom: 'bulges', outcome: 'repaired' });
});

const undo = (seq: number, target: number): JobEvent[] => [
  { ...log({ kind: 'undo', seq: target })[0], seq, at: '2026-11-24T09:00:00.000Z' },
];

test('a soak runs in open jobs only', () => {
  const soak: EventBody = { kind: 'soak', act: 'start', minutes: 30 };
  expect(summariseLog(log(story('x'), soak)).soak).toMatchObject({ minutes: 30 });
  expect(summariseLog(log(story('x'), soak, close)).soak).toBeUndefined();
});

test('a decision to replace is known, a decision to stop is none', () => {
  const decided = (action: 'replace' | 'stop', ref: string | null): EventBody => ({
    kind: 'decision',
    ...{ action, ref, words: 'x' },
  });
  expect(summariseLog(log(story('x'), decided('stop', null))).replaces).toBe(false);
  expect(summariseLog(log(story('x'), decided('replace', 'U4'))).replaces).toBe(true);
});

test('whatever happened, it says what the fold says, of the newest entry', () => {
  const body = fc.constantFrom<EventBody>(
    story('a'),
    story('b', 'swollen'),
    close,
    { kind: 'close', outcome: 'stopped', cause: 'bent' },
    { kind: 'reopen', symptom: 'again' },
    { kind: 'soak', act: 'start', minutes: 10 },
    { kind: 'soak', act: 'end' },
    { kind: 'note', text: 'n' },
    { kind: 'undo', seq: 2 },
    { kind: 'undo', seq: 3 },
  );
  fc.assert(
    fc.property(fc.array(body, { maxLength: 10 }), (bodies) => {
      const events = log(...bodies);
      const { closed, soaks } = foldJob(events);
      const summary = summariseLog(events);
      expect(summary.outcome).toBe(closed?.outcome);
      expect(summary.soak).toEqual(closed ? undefined : runningSoak(soaks));
      expect(summary.version).toBe(bodies.length);
      expect(summary.lastAt).toBe(events.at(-1)?.at);
    }),
    { seed: 7 },
  );
});
