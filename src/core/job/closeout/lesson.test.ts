import { demoBoard } from '../../../../demo/files';
import { demoJobs } from '../../../../demo/jobs';
import { startingPlan } from '../../heat';
import { runCards } from '../../run';
import { lessonName, closeoutRecordOf, viewJob, type EventBody, type JobView } from '..';

const board = demoBoard('heronlog-4-c');
const fuse = demoJobs().find((j) => j.number === 26)!;

/** The demo's closed job, with more events put before its end or left out. */
function viewWith(more: readonly EventBody[], leaveOut: (body: EventBody) => boolean = () => false): JobView {
  const bodies = fuse.events.filter((b) => !leaveOut(b));
  const end = bodies.findIndex((b) => b.kind === 'close');
  const all = end < 0 ? [...bodies, ...more] : [...bodies.slice(0, end), ...more, ...bodies.slice(end)];
  const meta = { at: '2026-11-16T09:00:00.000Z', bench: 'Bench 1', actor: 'Bench lead' };
  return viewJob(
    26,
    fuse.openedAt,
    board,
    all.map((body, k) => ({ seq: k + 1, ...meta, body })),
  );
}

const route: EventBody = {
  kind: 'route',
  ...{
    ref: 'F1',
    typeId: 'alder-fuse-3',
    supply: { kind: 'buy' as const, typeId: 'alder-fuse-3' },
    verdict: 'fits' as const,
  },
  ...{ off: ['F1'], actions: [], prove: [] },
};

test('an open job has taught nothing yet, a stopped one neither', () => {
  expect(closeoutRecordOf(viewWith([], (b) => b.kind === 'close'))).toEqual({ references: [], reports: [], lines: [] });
  const stopped: EventBody = { kind: 'close', outcome: 'stopped', cause: '' };
  expect(closeoutRecordOf(viewWith([stopped], (b) => b.kind === 'close')).lines).toEqual([]);
});

test('a repaired one gives its readings and names what was at fault, in words', () => {
  const { references, reports, lines } = closeoutRecordOf(viewWith([]));
  expect(references.length).toBeGreaterThan(5);
  expect(references.every((r) => r.source === 'job 26' && r.boardId === board.id)).toBe(true);
  expect(reports).toEqual([]);
  expect(lines).toEqual([
    `${references.length} readings after the repair, as known good for this revision`,
    'F1 at fault: counts in how often each kind of part fails',
  ]);
});

test('a chip that was chosen and went on is reported with the functions that were tried; none and unplaced ones are not', () => {
  const functions = Object.fromEntries(board.functions.map((f) => [f.id, true]));
  expect(closeoutRecordOf(viewWith([route])).reports).toEqual([
    {
      ...{ typeId: 'alder-fuse-3', boardId: board.id, ref: 'F1', date: '2026-11-16', source: 'own', worked: true },
      ...{ functions, note: 'job 26' },
    },
  ]);
  // The day is the bench's: on Kiritimati it is fourteen hours further on.
  const east = { timeZone: 'Pacific/Kiritimati', locale: 'de-DE', currency: '' };
  const job = viewWith([route]);
  const [day, next] = [job.state.closed!.at, new Date(Date.parse(job.state.closed!.at) + 14 * 3_600_000).toISOString()];
  expect(closeoutRecordOf(job, east).reports[0].date).toBe(next.slice(0, 10));
  expect(closeoutRecordOf(job).reports[0].date).toBe(day.slice(0, 10));
  expect(closeoutRecordOf(viewWith([{ ...route, typeId: 'none' }])).reports).toEqual([]);
  expect(closeoutRecordOf(viewWith([{ ...route, ref: 'U7' }])).reports).toEqual([]);
});

test('a chip from the stock that went on is to be judged, and a run on a station to be held against it', () => {
  const plan = startingPlan('F1', board.alloy, 8);
  const at = (s: number) => Date.UTC(2026, 10, 16, 10) + 1000 * s;
  const run = { kind: 'run' as const, run: 'r1' };
  const cards = runCards(plan, { ref: 'F1', what: '', centrePad: false });
  const hot = cards.findIndex((c) => c.hot);
  const presses: EventBody[] = [
    { ...run, act: 'begin', atMs: at(0), plan, stationId: 'bench-1' },
    { ...run, act: 'next', atMs: at(5), card: hot },
    { ...run, act: 'mark', atMs: at(46), mark: 'swims' },
  ];
  const { chip, mark, lines } = closeoutRecordOf(
    viewWith([{ ...route, supply: { kind: 'chip', chip: 'C-105' } }, ...presses]),
  );
  expect(chip).toBe('C-105');
  expect(mark).toMatchObject({ stationId: 'bench-1', seenS: 41, plan: { partRef: 'F1' } });
  expect(lines.join('; ')).toContain('C-105 worked');
  expect(lines.join('; ')).toContain('F1 swam at 41 s');
  // A lot, a donor's part or a bought one is no chip with a name yet; a run that named no mark says nothing.
  expect(
    closeoutRecordOf(viewWith([{ ...route, supply: { kind: 'lot', lot: 'L-12' } }, presses[0]])),
  ).not.toHaveProperty('mark');
  expect(closeoutRecordOf(viewWith([{ ...route, supply: { kind: 'lot', lot: 'L-12' } }])).chip).toBeUndefined();
});

test('each time a job is closed anew its lesson has a name of its own', () => {
  expect([lessonName(26, 0), lessonName(26, 1)]).toEqual(['job 26', 'job 26, time 2']);
  const back: EventBody[] = [
    { kind: 'reopen', symptom: 'dead again' },
    { kind: 'reading', measurement: { kind: 'railVoltage', rail: 'VBUS' }, value: { kind: 'figure', value: 15 } },
    { kind: 'close', outcome: 'repaired', cause: '' },
  ];
  const first = viewWith([]).state.live.map((e) => e.body);
  const again = viewJob(
    26,
    fuse.openedAt,
    board,
    [...first, ...back].map((body, k) => ({
      seq: k + 1,
      at: '2026-11-18T09:00:00.000Z',
      bench: 'B',
      actor: 'A',
      body,
    })),
  );
  expect(closeoutRecordOf(again).references.map((r) => [r.point, r.source])).toEqual([
    ['volts:VBUS', 'job 26, time 2'],
  ]);
});
