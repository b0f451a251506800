import { demoBoard } from '../../../../demo/files';
import { demoJobs } from '../../../../demo/jobs';
import { Predictor, idealReading, singleFaults, SOUND, type Measurement } from '../../diagnose';
import type { EventBody, JobEvent } from '../log';
import { reportOf } from '../report/report';
import { jobReportSchema } from '../report/report-schema';
import { viewJob, type JobView } from './view';

const jobs = demoJobs();
const asEvents = (bodies: readonly EventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({
    seq: i + 1,
    at: '2026-11-24T08:00:00.000Z',
    bench: 'Bench 1',
    actor: 'Bench lead',
    body,
  }));
const boards = { 'heronlog-4-c': demoBoard('heronlog-4-c'), 'marshdesk-2-b': demoBoard('marshdesk-2-b') };

function viewOf(number: number, more: readonly EventBody[] = []): JobView {
  const job = jobs.find((j) => j.number === number)!;
  return viewJob(number, job.openedAt, boards[job.boardId], asEvents([...job.events, ...more]));
}

test('six demo jobs or more, in at least six different stages', () => {
  const stages = jobs.map((j) => viewOf(j.number).next.stage);
  expect(jobs.length).toBeGreaterThanOrEqual(6);
  expect(new Set(stages).size).toBeGreaterThanOrEqual(6);
});

test.each([
  [26, 'F1'],
  [27, 'U4'],
  [28, 'D1'],
  [29, 'U19'],
  [31, 'U4'],
  [32, 'U4'],
])('the readings of job %p lead to %p, the part whose fault made them', (number, ref) => {
  const { cured, suspects } = viewOf(number);
  // What was mended is no suspect any more: it stands among what was cured.
  expect((cured[0] ?? suspects[0]).ref).toBe(ref);
});

test('a swollen pack comes before everything else, until it is out', () => {
  expect(viewOf(30).next.title).toBe('Swollen pack out first, into the fire-safe box');
  expect(viewOf(30).cautions.outside.title).toBe('Swollen pack.');
  expect(viewOf(30, [{ kind: 'pack', state: 'out' }]).next.stage).toBe('outside');
});

test('a job walks the path: probe, decide, heat, measure with the part off, balls, prove, close', () => {
  const board = boards['heronlog-4-c'];
  const predictor = Predictor.of(board);
  const fault = singleFaults(board).find((f) => f.id === 'U4/short/AON33')!;
  const take = (m: Measurement, sound = false): EventBody => ({
    kind: 'reading',
    ...idealReading(predictor, m, sound ? SOUND : fault),
  });
  const done: EventBody[] = [];
  const stage = (): string => {
    const { next } = viewOf(31, done);
    return `${next.stage}: ${next.title}`;
  };
  expect(stage()).toMatch(/^probe: TP[78] to ground, resistance$/);
  done.push(take({ kind: 'groundResistance', net: 'AON33' }));
  done.push({ kind: 'decision', action: 'replace', ref: 'U4' });
  expect(stage()).toBe('heat: Plan the heat for U4 port controller');
  const plan = jobs.find((j) => j.number === 27)!.events.find((e) => e.kind === 'heatPlan')!;
  done.push(plan);
  expect(stage()).toBe('heat: Take U4 off, then measure again');
  done.push({ kind: 'partOff', ref: 'U4' });
  expect(stage()).toBe('probe: U4 is off: is the fault gone with it?');
  done.push(take({ kind: 'groundResistance', net: 'AON33' }, true));
  expect(stage()).toBe('balls: Make the site of U4 ready');
  done.push({ kind: 'site', ref: 'U4', words: 'level' });
  done.push({ kind: 'partOn', ref: 'U4', fresh: true });
  expect(stage()).toBe('prove: AON33 to ground before power: is the short gone?');
  done.push(take({ kind: 'groundResistance', net: 'AON33' }, true));
  for (const rail of board.rails) done.push(take({ kind: 'railVoltage', rail: rail.id }, true));
  for (const side of ['A', 'B'] as const) done.push(take({ kind: 'usbMeter', port: 'J1', side }, true));
  for (const fn of board.functions) done.push(take({ kind: 'functionTest', fn: fn.id }, true));
  expect(viewOf(31, done).proof.gates.filter((g) => !g.holds)).toEqual([]);
  expect(stage()).toBe('close: Close as repaired');
});

test('a rail that fails after the work sends the job back with the smallest set of suspects', () => {
  const { next, proof } = viewOf(27, [
    { kind: 'reading', measurement: { kind: 'railVoltage', rail: 'CHG5' }, value: { kind: 'figure', value: 5.02 } },
    { kind: 'reading', measurement: { kind: 'railVoltage', rail: 'VSYS' }, value: { kind: 'figure', value: 0 } },
  ]);
  expect(next.stage).toBe('probe');
  expect(proof.rails.failures[0].suspects).toEqual(expect.arrayContaining(['U2', 'L1']));
});

test('the report says what was found, done and proven, and leaves notes and image names out', () => {
  const report = reportOf(viewOf(26, [{ kind: 'note', text: 'owner phone 555' }]));
  expect(report).toMatchObject({ outcome: 'Repaired', cause: expect.stringMatching(/fuse/) });
  expect(report.work).toContain('F1 3 A fuse replaced');
  expect(report.rails.every((r) => r.state === 'passes')).toBe(true);
  expect(JSON.stringify(report)).not.toContain('555');
  expect(report.bill).toEqual([]);
});

test('the report in the shop’s words, with its bill, and with the notes where they are asked for', () => {
  const close = { kind: 'close', outcome: 'repaired', cause: 'fuse', minutes: 95, price: 140 } as const;
  const job = viewOf(26, [{ kind: 'note', text: 'owner phone 555' }, close]);
  const words = {
    shop: 'The Jetty Bench',
    heading: '{device}: what we did, {job}',
    closing: 'Ninety days on {job}.',
    money: 'M',
  };
  const report = reportOf(job, { words, withPrivate: true });
  expect(report).toMatchObject({
    shop: 'The Jetty Bench',
    title: 'Heronlog 4: what we did, 0026',
    closing: 'Ninety days on 0026.',
  });
  expect(report.bill).toEqual([
    { what: 'Bench work', figure: '95 min' },
    { what: 'Price', figure: 'M 140.00' },
  ]);
  expect(report.notes).toEqual(['owner phone 555']);
  expect(JSON.stringify(reportOf(job, { words }))).not.toContain('555');
});

test('the report names parts and where they came from, its earlier closings, and carries the traces of both times', () => {
  const trace = (side: 'A' | 'B', amps: number): EventBody => ({
    kind: 'trace',
    ...{ port: 'J1', side, name: 'the owner’s name.csv' },
    timesS: Array.from({ length: 600 }, (_, i) => i / 10),
    volts: Array.from({ length: 600 }, () => 15),
    amps: Array.from({ length: 600 }, () => amps),
  });
  const bodies: EventBody[] = [
    { kind: 'reopen', symptom: 'dead again' },
    trace('A', 0.01),
    { kind: 'partOff', ref: 'F1' },
    { kind: 'partOn', ref: 'F1', fresh: true },
    trace('A', 0.6),
    trace('B', 0.62),
  ];
  const report = reportOf(viewOf(26, bodies));
  expect(jobReportSchema.parse(report)).toEqual(report);
  expect(report.parts).toEqual([{ what: 'F1 3 A fuse', from: '' }]);
  expect(report.past).toHaveLength(1);
  expect(report.past[0]).toMatch(/as repaired \(F1 3 A fuse replaced\); came back/);
  expect(report.traces.map((t) => [t.way, t.time, t.amps[0]])).toEqual([
    ['A way', 'before', 0.01],
    ['A way', 'now', 0.6],
    ['B way', 'now', 0.62],
  ]);
  expect(report.traces[0].timesS.length).toBeLessThanOrEqual(150);
  expect(JSON.stringify(report)).not.toContain('the owner’s name');
});
