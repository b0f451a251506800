/** Soaks over all jobs and the proof's order, through the same actions as the screens. */
import { demoBench } from '../tests/demo-bench';
import { closeJob, dropLesson, keepLesson } from '@/features/close/actions';
import { isLessonKept, loadReport } from '@/features/close/queries';
import { enterEvent, enterLine, undoLast } from '@/features/job/actions';
import { loadJob } from '@/features/job/queries';
import type { EventBody } from '@/core/job';
import type { Database } from '@/db/client';
import { listReports } from '@/db/parts';
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
    expect(await type(27, 'soak 30')).toMatchObject({ kept: true, words: 'Soak of 30 min begins' });
    expect(await type(32, 'soak 60')).toMatchObject({ kept: true });
    expect(await type(34, 'soak 10')).toMatchObject({ kept: true });
    await undoLast(34, 'prove-undo');
    await closeJob(32, { outcome: 'stopped', cause: 'owner came for it' }, 'prove-close');
    expect(await loadSoakClocks()).toEqual([{ job: 27, startedAt: expect.any(String), minutes: 30 }]);
  });

  test('a second one, and one of no length, are refused and change nothing', async () => {
    expect(await type(27, 'soak 20')).toMatchObject({ kept: false, words: expect.stringMatching(/end it first/) });
    const none = await enterEvent(27, { kind: 'soak', act: 'start', minutes: 0 }, 'prove-none');
    expect(none).toMatchObject({ kept: false });
    expect((await loadJob(27))!.state.soaks).toHaveLength(1);
  });

  test('a soak that is on, or was too short, keeps its gate open; the report names it', async () => {
    const gate = async () => (await loadJob(27))!.proof.gates.find((g) => g.id === 'soak');
    expect(await gate()).toMatchObject({ holds: false, missing: 'still on' });
    await type(27, 'soak restart');
    await type(27, 'soak off');
    expect(await gate()).toMatchObject({ holds: false, missing: '1 restart' });
    expect((await loadReport(27))!.gates).toContainEqual({ words: 'Soak held', state: 'open: 1 restart' });
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
    ...{ ref: 'U4', typeId: 'heron-pd-r2', offer: 'C-107', words: 'same revision', verdict: 'fits' as const },
    ...{ off: ['U4'], actions: [], prove: ['charge'] },
  };
  expect(await enterEvent(27, route, 'prove-route')).toMatchObject({ kept: true });
  expect(await keepLesson(27)).toMatchObject({ kept: false });
  await closeJob(27, { outcome: 'repaired', cause: 'flood', reason: 'in a hurry' }, 'prove-close-27');
  const count = (await listReports(db)).length;
  expect(await keepLesson(27)).toMatchObject({ kept: true, words: expect.stringMatching(/ and 1 reports kept\.$/) });
  await keepLesson(27);
  const reports = await listReports(db);
  expect(reports).toHaveLength(count + 1);
  expect(reports.find((r) => r.note === 'job 27')).toMatchObject({
    ...{ typeId: 'heron-pd-r2', boardId: job.board.id, ref: 'U4', source: 'own', worked: true },
    functions: { charge: true },
  });
  expect(await isLessonKept(27)).toBe(true);
  await dropLesson(27);
  expect([await isLessonKept(27), (await listReports(db)).length]).toEqual([false, count]);
});
