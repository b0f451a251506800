/**
 * Logs as they were stored by earlier versions of this program, kept as they lay in its database. Every later build reads
 * them; they are never rewritten, only added to.
 */
import { readdirSync } from 'node:fs';
import path from 'node:path';
import { measurementKindNames } from '../../diagnose';
import { SET_ASIDE, demo, eventsOf, everyType } from '../tests/old-logs';
import { EVENT_TYPES, fromStored, loggedEventSchema, toStored } from '.';

test('the corpus is here', () => {
  expect(readdirSync(path.join(__dirname, '../tests/old-logs')).sort()).toEqual([
    '2026-11-demo-jobs.json',
    '2026-11-every-type.json',
  ]);
});

test('every row of every old log is read', () => {
  for (const log of [everyType, ...Object.values(demo)])
    expect(eventsOf(log).filter((e) => e.body.kind === 'unreadable')).toEqual([]);
});

test('sentences and verdicts that old rows hold are dropped; what was shown as a figure stays', () => {
  const computed: Readonly<Record<string, readonly string[]>> = {
    decision: ['words'],
    heatPlan: ['finding', 'holds', 'liftAtS'],
    inspection: ['words', 'holds'],
    padLook: ['words', 'holds'],
    flatness: ['words', 'holds'],
    route: ['offer', 'words'],
  };
  const events = eventsOf(everyType);
  for (const [kind, names] of Object.entries(computed)) {
    const bodies = events.flatMap(({ body }) => (body.kind === kind ? [body] : []));
    expect(bodies.length).toBeGreaterThan(0);
    for (const body of bodies) expect(names.filter((name) => name in body)).toEqual([]);
  }
  const plan = events.flatMap(({ body }) => (body.kind === 'heatPlan' ? [body.shown] : []));
  expect(plan[0]).toEqual({ actAtS: 41, tightest: null, breaks: [] });
  expect(plan[1].breaks).toEqual(['notSaid']);
});

test('that a part stays off was only in the words of a decision', () => {
  const row = { seq: 2, at: SET_ASIDE, bench: 'Bench 1', actor: 'Bench lead' };
  const data = { action: 'replace', ref: 'D1', words: 'D1 off for good' };
  const event = loggedEventSchema.parse({ ...row, body: { type: 'decision', version: 1, data } });
  expect(event.body).toEqual({ kind: 'decision', action: 'replace', ref: 'D1', forGood: true });
});

test.each([
  ['C-105', 'C-105 of lot L-12, reballed', { kind: 'chip', chip: 'C-105', lot: 'L-12' }],
  ['C-106', 'C-106, off this job', { kind: 'chip', chip: 'C-106' }],
  ['D-3/U13', 'donor D-3, U13', { kind: 'donor', donor: 'D-3', ref: 'U13' }],
  ['buy heron-pd-r2', 'buy new, 5 days', { kind: 'buy', typeId: 'heron-pd-r2' }],
  ['leave off', 'left off: optional on this board', { kind: 'none' }],
])('a chip chosen by its name %p was a string and a sentence', (offer, words, supply) => {
  const data = {
    ...{ ref: 'U4', typeId: 'heron-pd-r2', offer, words },
    verdict: 'fits',
    off: [],
    actions: [],
    prove: [],
  };
  const row = { seq: 2, at: SET_ASIDE, bench: 'Bench 1', actor: 'Bench lead' };
  const { body } = loggedEventSchema.parse({ ...row, body: { type: 'route', version: 1, data } });
  expect(body).toMatchObject({ kind: 'route', ref: 'U4', supply });
});

test('the corpus holds every type and every kind of measurement that was stored before versions', () => {
  const events = eventsOf(everyType);
  // Types that came after versions need no row here either.
  const typesSince = new Set(['device']);
  const types = EVENT_TYPES.map((t) => t.type).filter((type) => !typesSince.has(type));
  expect(new Set(events.map((e) => e.body.kind))).toEqual(new Set(types));
  const kinds = new Set(events.flatMap((e) => (e.body.kind === 'reading' ? [e.body.measurement.kind] : [])));
  // Kinds that came after versions need no row here.
  const since = new Set(['warmSpot', 'jointLook', 'pressTest']);
  expect(kinds).toEqual(new Set(measurementKindNames.filter((kind) => !since.has(kind))));
});

test('old names of kinds and answers have the field’s terms', () => {
  const readings = eventsOf(everyType).flatMap((e) => (e.body.kind === 'reading' ? [e.body] : []));
  expect(readings.find((r) => r.measurement.kind === 'meterPattern')!.value).toEqual({
    kind: 'choice',
    choice: 'swing',
  });
  expect(readings.find((r) => r.measurement.kind === 'pdNegotiation')!.value).toEqual({
    kind: 'choice',
    choice: 'offersUnanswered',
  });
  expect(readings.find((r) => r.measurement.kind === 'visualInspection')!.value).toEqual({
    kind: 'fail',
    seen: ['pins', 'corrosion'],
  });
});

test('what is written now is read back as it was, with its type and version', () => {
  for (const { body } of [everyType, ...Object.values(demo)].flatMap(eventsOf)) {
    if (body.kind === 'unreadable') throw new Error(body.problem);
    const stored = JSON.parse(JSON.stringify(toStored(body))) as ReturnType<typeof toStored>;
    expect(stored.type).toBe(body.kind);
    const back = fromStored(stored);
    expect(back.ok && back.value).toEqual(body);
  }
});

describe('a row that cannot be read', () => {
  const good = { seq: 1, at: SET_ASIDE, bench: 'Bench 1', actor: 'Bench lead' };
  test.each([
    ['an unknown type', { type: 'gossip', version: 1, data: {} }, 'got "gossip"'],
    ['a newer version', { type: 'note', version: 9, data: { text: 'x' } }, 'written by a newer program'],
    ['a broken field', { type: 'pack', version: 1, data: { state: 'sideways' } }, 'pack, state'],
    ['an old row with a broken field', { kind: 'partOff', ref: 12 }, 'partOff, ref'],
    ['no event at all', 'torn', 'Expected an event'],
    [
      'an unknown kind of measurement',
      { kind: 'reading', measurement: { kind: 'sniff' }, value: { kind: 'open' } },
      'reading, measurement',
    ],
  ])('%s is named, with its place in the log', (_, body, words) => {
    const event = loggedEventSchema.parse({ ...good, seq: 7, body });
    expect(event.body).toMatchObject({ kind: 'unreadable', problem: expect.stringContaining(words) });
    expect(event.body).toMatchObject({ problem: expect.stringContaining('Entry 7') });
  });
});
