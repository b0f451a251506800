/** Soaks over all jobs and the proof's order, through the same actions as the screens. */
import { demoBench } from '../tests/demo-bench';
import { keepStory } from '@/features/arrive/actions';
import { closeJob, dropLesson, keepLesson, reopenJob } from '@/features/close/actions';
import { isLessonKept, loadReport } from '@/features/close/queries';
import { enterEvent, enterLine, undoLast } from '@/features/job/actions';
import { loadJob } from '@/features/job/queries';
import { startingPlan } from '@/core/heat';
import type { EventBody } from '@/core/job';
import { runCards } from '@/core/run';
import { lotArrivals } from '@/core/stock';
import type { Database } from '@/db/client';
import { findStation } from '@/db/library';
import { listReports } from '@/db/parts';
import { stockEventsOf } from '@/db/stock';
import { loadSoakClocks } from './queries';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

let key = 0;
const type = (job: number, text: string) => enterLine(job, text, 'volt', `prove-${key++}`);

describe('soaks', () => {
  test('of several jobs run at once; an undone one and one of a closed job do not', async () => {
    expect(await loadSoakClocks()).toEqual([]);
    expect(await type(27, 'soak 30')).toMatchObject({ saved: true, message: 'Soak of 30 min begins' });
    expect(await type(32, 'soak 60')).toMatchObject({ saved: true });
    expect(await type(34, 'soak 10')).toMatchObject({ saved: true });
    await undoLast(34, 'prove-undo');
    await closeJob(32, { outcome: 'stopped', cause: 'owner came for it' }, 'prove-close');
    expect(await loadSoakClocks()).toEqual([{ job: 27, startedAt: expect.any(String), minutes: 30 }]);
  });

  test('a second one, and one of no length, are refused and change nothing', async () => {
    expect(await type(27, 'soak 20')).toMatchObject({ saved: false, message: expect.stringMatching(/end it first/) });
    const none = await enterEvent(27, { kind: 'soak', act: 'start', minutes: 0 }, 'prove-none');
    expect(none).toMatchObject({ saved: false });
    expect((await loadJob(27))!.state.soaks).toHaveLength(1);
  });

  test('a soak that is on, or was too short, keeps its gate open; the report names it', async () => {
    const gate = async () => (await loadJob(27))!.proof.gates.find((g) => g.id === 'soak');
    expect(await gate()).toMatchObject({ holds: false, missing: 'still on' });
    await type(27, 'soak restart');
    await type(27, 'soak off');
    expect(await gate()).toMatchObject({ holds: false, missing: '1 restart' });
    expect((await loadReport(27))!.gates).toContainEqual({ words: 'Soak held', state: 'not met: 1 restart' });
    expect((await loadJob(26))!.proof.gates.some((g) => g.id === 'soak')).toBe(false);
  });
});

test('what is still to be tried is ordered, and shrinks as functions are tried', async () => {
  const before = (await loadJob(27))!.proofOrder.tests.map((t) => t.id);
  expect(before).toHaveLength((await loadJob(27))!.board.functions.length);
  // U4 was placed: what exercises it is the likeliest to fail.
  expect(before[0]).toBe('charge');
  await type(27, 'try charge works');
  const { tests } = (await loadJob(27))!.proofOrder;
  expect(tests.map((t) => t.id)).not.toContain('charge');
  expect(tests).toHaveLength(before.length - 1);
});

test('a chip that worked is reported with its functions once the job is closed, and taken back', async () => {
  const job = (await loadJob(27))!;
  const route: EventBody = {
    kind: 'route',
    ...{ ref: 'U4', typeId: 'heron-pd-r2', supply: { kind: 'chip' as const, chip: 'C-106' }, verdict: 'fits' as const },
    ...{ off: ['U4'], actions: [], prove: ['charge'] },
  };
  const plan = startingPlan('U4', job.board.alloy, 8);
  const press = { kind: 'run' as const, run: 'r1' };
  const hot = runCards(plan, { ref: 'U4', what: '', centrePad: false }).findIndex((c) => c.hot);
  const presses: EventBody[] = [
    { ...press, act: 'begin', atMs: 0, plan, stationId: 'bench-1' },
    { ...press, act: 'next', atMs: 5000, card: hot },
    { ...press, act: 'mark', atMs: 75_000, mark: 'swims' },
  ];
  for (const [k, body] of [route, ...presses].entries())
    expect(await enterEvent(27, body, `prove-lesson-${k}`)).toMatchObject({ saved: true });
  const tried = async () => lotArrivals(await stockEventsOf(db), 0.02).reduce((sum, lot) => sum + lot.tried, 0);
  const station = async () => (await findStation(db, 'bench-1'))!;
  const [triedBefore, stationBefore] = [await tried(), await station()];
  expect(await keepLesson(27)).toMatchObject({ saved: false });
  await closeJob(27, { outcome: 'repaired', cause: 'flood', reason: 'in a hurry' }, 'prove-close-27');
  const count = (await listReports(db)).length;
  expect(await keepLesson(27)).toMatchObject({
    saved: true,
    message: expect.stringMatching(/ and 1 reports kept\. C-106 is judged sound\. .* moved to the mark at 70 s\.$/),
  });
  expect(await tried()).toBe(triedBefore + 1);
  const stationAfter = await station();
  expect(stationAfter.multiplier).not.toBe(stationBefore.multiplier);
  // Twice changes nothing: the mark counts once.
  const stocked = (await stockEventsOf(db)).length;
  await keepLesson(27);
  expect(await stockEventsOf(db)).toHaveLength(stocked);
  expect([await station(), await tried()]).toEqual([stationAfter, triedBefore + 1]);
  const reports = await listReports(db);
  expect(reports).toHaveLength(count + 1);
  expect(reports.find((r) => r.note === 'job 27')).toMatchObject({
    ...{ typeId: 'heron-pd-r2', boardId: job.board.id, ref: 'U4', source: 'own', worked: true },
    functions: { charge: true },
  });
  expect(await isLessonKept(27)).toBe(true);
  await dropLesson(27);
  expect([await isLessonKept(27), (await listReports(db)).length]).toEqual([false, count]);
  expect([await station(), await tried()]).toEqual([stationBefore, triedBefore]);
});

test('a closed job that comes back is open, forgets no event, and its first lesson can still be taken back', async () => {
  expect(await reopenJob(34, 'dead again', 'back-0')).toMatchObject({ saved: false });
  expect(await reopenJob(26, '  ', 'back-1')).toMatchObject({ saved: false });
  await keepLesson(26);
  const events = (await loadJob(26))!.version;
  expect(await reopenJob(26, 'dead again', 'back-2')).toMatchObject({ saved: true });
  const job = (await loadJob(26))!;
  expect([job.version, job.state.closed, job.state.story!.symptom]).toEqual([events + 1, undefined, 'dead again']);
  expect(job.priorClosures[0].mended).toEqual(['F1 3 A fuse replaced']);
  expect((await loadReport(26))!.past[0]).toContain('came back');
  expect([await isLessonKept(26, 0), await isLessonKept(26, 1)]).toEqual([true, false]);
  expect(await dropLesson(26, 3)).toMatchObject({ saved: false, message: expect.stringContaining('got 3') });
  await dropLesson(26, 0);
  expect(await isLessonKept(26, 0)).toBe(false);
  // The story of this time is corrected; the one it first came with stays.
  const story = { ...job.state.story!, symptom: 'dead after the rain' };
  expect(await keepStory(26, story, 'back-3')).toMatchObject({ saved: true });
  const { state } = (await loadJob(26))!;
  expect([state.story!.symptom, state.priorClosures[0].state.story!.symptom]).toEqual([
    'dead after the rain',
    job.priorClosures[0].symptom,
  ]);
});
