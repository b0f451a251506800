import { demoBoard } from '../../../demo/files';
import { demoJobs } from '../../../demo/jobs';
import { lessonOf, viewJob, type EventBody, type JobView } from '.';

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
  ...{ ref: 'F1', typeId: 'alder-fuse-3', offer: 'buy', words: 'as built', verdict: 'fits' as const },
  ...{ off: ['F1'], actions: [], prove: [] },
};

test('an open job has taught nothing yet, a stopped one neither', () => {
  expect(lessonOf(viewWith([], (b) => b.kind === 'close'))).toEqual({ references: [], reports: [], words: [] });
  const stopped: EventBody = { kind: 'close', outcome: 'stopped', cause: '' };
  expect(lessonOf(viewWith([stopped], (b) => b.kind === 'close')).words).toEqual([]);
});

test('a repaired one gives its readings and names what was at fault, in words', () => {
  const { references, reports, words } = lessonOf(viewWith([]));
  expect(references.length).toBeGreaterThan(5);
  expect(references.every((r) => r.source === 'job 26' && r.boardId === board.id)).toBe(true);
  expect(reports).toEqual([]);
  expect(words).toEqual([
    `${references.length} readings after the repair, as known good for this revision`,
    'F1 at fault: counts in how often each kind of part fails',
  ]);
});

test('a chip that was chosen and went on is reported with the functions that were tried; none and unplaced ones are not', () => {
  const functions = Object.fromEntries(board.functions.map((f) => [f.id, true]));
  expect(lessonOf(viewWith([route])).reports).toEqual([
    {
      ...{ typeId: 'alder-fuse-3', boardId: board.id, ref: 'F1', date: '2026-11-16', source: 'own', worked: true },
      ...{ functions, note: 'job 26' },
    },
  ]);
  expect(lessonOf(viewWith([{ ...route, typeId: 'none' }])).reports).toEqual([]);
  expect(lessonOf(viewWith([{ ...route, ref: 'U7' }])).reports).toEqual([]);
});
