import { recordedBy } from '../tests/typed';
import { demoBoard } from '../../../../demo/files';
import { singleFaults, updateBelief, Predictor, type Value } from '../../diagnose';
import type { EventBody, JobEvent } from '../log';
import { parseEntry } from '../entry/grammar';
import { foldJob } from '../log';
import { viewJob } from './view';

const board = demoBoard('heronlog-4-c');
const predictor = Predictor.of(board);

const story: EventBody = {
  kind: 'story',
  symptom: 'Does not charge',
  history: ['unknownCharger'],
  dataMatters: false,
  locked: false,
  consent: true,
  pack: 'sound',
};
const volts = (rail: string, value: number): EventBody => ({
  kind: 'reading',
  measurement: { kind: 'railVoltage', rail },
  value: { kind: 'figure', value },
});
const meter = (side: 'A' | 'B', value: Value): EventBody => ({
  kind: 'reading',
  measurement: { kind: 'usbMeter', port: 'J1', side },
  value,
});
const REPAIRED: EventBody[] = [
  story,
  { kind: 'partOff', ref: 'U4' },
  { kind: 'partOn', ref: 'U4', fresh: true },
  volts('VBUS', 15),
  volts('AON33', 3.3),
  meter('A', { kind: 'pair', volts: 15, amps: 0.6 }),
  { kind: 'close', outcome: 'repaired', cause: 'A cheap charger', reason: 'the owner could not wait' },
];
const BACK: EventBody = { kind: 'reopen', symptom: 'Charges one way only' };

const events = (...bodies: EventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({
    ...{ seq: i + 1, bench: 'Bench 1', actor: 'Bench lead', body },
    at: new Date(Date.UTC(2026, 9, 1 + (body === BACK ? 20 : 0), 10, i)).toISOString(),
  }));
const view = (...bodies: EventBody[]) => viewJob(27, '2026-10-01T10:00:00Z', board, events(...bodies));

test('a job that came back begins anew and knows that somebody was in it', () => {
  const state = foldJob(events(...REPAIRED, BACK));
  expect(state).toMatchObject({ readings: [], replaced: [], placed: {}, access: 'closed' });
  expect(state.closed).toBeUndefined();
  expect(state.story).toMatchObject({ symptom: BACK.symptom, history: ['unknownCharger', 'earlierRepair'] });
  expect(state.priorClosures.map((p) => p.state.replaced)).toEqual([['U4']]);
});

test('undo closes it again, and a job that is not closed cannot come back', () => {
  const closed = foldJob(events(...REPAIRED));
  const undone = foldJob(events(...REPAIRED, BACK, { kind: 'undo', seq: REPAIRED.length + 1 }));
  expect({ ...undone, live: [] }).toEqual({ ...closed, live: [] });
  expect(foldJob(events(story, BACK)).priorClosures).toEqual([]);
});

test('says what was proven, what was left open, how long it held, and what the owner was told', () => {
  const [past] = view(...REPAIRED, BACK).priorClosures;
  expect(past).toMatchObject({
    ...{ outcome: 'repaired', daysGood: 20, cause: 'A cheap charger', reason: 'the owner could not wait' },
    mended: ['U4 port controller replaced'],
    symptom: 'Does not charge',
  });
  expect(past.proven).toEqual(['Shorts gone']);
  expect(past.unproven.join(' ')).toContain('J1 B not yet');
});

test('nothing proven before counts now: every gate is unmet again', () => {
  const { proof } = view(...REPAIRED, BACK);
  expect(proof.rails.rails.every((r) => r.state === 'untested')).toBe(true);
  expect(proof.plugs.every((p) => p.healthy === undefined)).toBe(true);
});

test('what has turned since stands first, then what was read again, then what is to be read', () => {
  const back = view(...REPAIRED, BACK, volts('VBUS', 15.1), volts('AON33', 0));
  const { changes } = back.priorClosures[0];
  expect(changes.map((c) => [c.name, c.now !== undefined, c.hasTurned])).toEqual([
    ['AON33', true, true],
    ['VBUS', true, false],
    ['Port, A way', false, false],
  ]);
  const entry = parseEntry(board, { ...back.state, readings: [] }, `${changes[0].stem} 3.3`, 'volt');
  expect(entry.ok && recordedBy(entry.value)).toMatchObject({ measurement: { kind: 'railVoltage', rail: 'AON33' } });
});

// Bayes with one fault at a time: a factor on the weight of one fault multiplies its odds against any other by just that.
test('what was worked on is five times likelier against every other fault than it was', () => {
  const ids = singleFaults(board).map((f) => f.id);
  const priorOf = (again?: string[]) => updateBelief(predictor, [], [], again && { again }).prior();
  const [before, after] = [priorOf(), priorOf(['U4'])];
  const of = (ref: string) => ids.findIndex((id) => singleFaults(board).find((f) => f.id === id)!.ref === ref);
  const [u4, u2] = [of('U4'), of('U2')];
  expect(after[u4] / after[u2] / (before[u4] / before[u2])).toBeCloseTo(5, 9);
  const { priorClosures: past, suspects } = view(...REPAIRED, BACK);
  expect(past[0].againChance).toBeGreaterThan(0.1);
  expect(suspects[0].ref).toBe('U4');
});
