/** What a bench settles for itself, and the references it keeps: through the same actions as the screens. */
import { demoBench } from '../tests/demo-bench';
import { addReferences } from '@/features/library/actions';
import { referenceFile } from '@/features/library/reference-file';
import { dropLesson, keepLesson } from '@/features/close/actions';
import { isLessonKept } from '@/features/close/queries';
import { enterLine } from '@/features/job/actions';
import { loadJob } from '@/features/job/queries';
import type { Database } from '@/db/client';
import { findPractice, keepReferences, listReferences } from '@/db/knowledge';
import { loadReport } from '@/features/close/queries';
import { keepPractice, keepReportWords, learnFromJobs } from './actions';
import { loadPractice, loadReportWords } from './queries';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

test('a bench starts with the defaults, keeps its own rates, and refuses what makes no sense', async () => {
  expect(await loadPractice()).toEqual({});
  expect(await keepPractice({ errorRates: { portTester: 0.9 } })).toMatchObject({ saved: false });
  expect(await findPractice(db)).toEqual({});
  expect(await keepPractice({ errorRates: { portTester: 0.35 } })).toMatchObject({ saved: true });
  expect(await findPractice(db)).toMatchObject({ errorRates: { portTester: 0.35 } });
});

test('settling one thing leaves the others as they are, and an odd figure names its place', async () => {
  await keepPractice({ factors: { liquid: { connector: 6 } }, records: { fuse: 2 } });
  await keepPractice({ prices: { hour: 90, parts: { processor: 80 } }, doubleShare: 0.2 });
  expect(await findPractice(db)).toMatchObject({
    errorRates: { portTester: 0.35 },
    factors: { liquid: { connector: 6 } },
    records: { fuse: 2 },
    prices: { hour: 90, parts: { processor: 80 } },
    doubleShare: 0.2,
  });
  const refused = await keepPractice({ factors: { liquid: { connector: Number.NaN } } });
  expect(refused.message).toMatch(/^Expected factors from 0\.1 to 20; liquid, connector: /);
  expect((await findPractice(db)).factors).toEqual({ liquid: { connector: 6 } });
  await keepPractice({ factors: {}, records: {}, prices: undefined, doubleShare: undefined });
});

test('closed jobs suggest records, and asking keeps nothing', async () => {
  const { jobs, records } = await learnFromJobs();
  expect(jobs).toBeGreaterThan(0);
  const seen = records.filter((r) => r.seen > 0);
  expect(seen.length).toBeGreaterThan(0);
  for (const r of seen) expect(r.factor).toBeGreaterThan(1);
  expect((await findPractice(db)).records ?? {}).toEqual({});
});

test('the rates move what a job concludes from the same readings', async () => {
  await enterLine(30, 'pack out', 'ohm', 'p-0');
  await enterLine(30, 'look j1 good', 'ohm', 'p-1');
  await enterLine(30, 'tester fail', 'ohm', 'p-2');
  const controller = async (rate: number): Promise<number> => {
    await keepPractice({ errorRates: { portTester: rate } });
    return (await loadJob(30))!.suspects.filter((s) => s.ref === 'U4').reduce((sum, s) => sum + s.p, 0);
  };
  expect(await controller(0.01)).toBeGreaterThan(await controller(0.5));
});

test('the demo world carries readings on five good boards, and they narrow the walk', async () => {
  const readings = await listReferences(db, 'heronlog-4-c');
  expect(new Set(readings.map((r) => r.source)).size).toBe(5);
  const { references } = (await loadJob(34))!;
  expect(references['pin:J1:A5'].n).toBe(5);
});

test('references come in as CSV, go out as CSV, and faulty files change nothing', async () => {
  const before = await listReferences(db, 'marshdesk-2-b');
  const csv = 'board,point,value,source\nmarshdesk-2-b,ohm:VIN,81000,job 12\n';
  for (const bad of ['nonsense', csv.replace('81000', 'many'), csv.replace('marshdesk-2-b', 'heronlog-4-c')])
    expect((await addReferences('marshdesk-2-b', bad)).saved).toBe(false);
  expect(await listReferences(db, 'marshdesk-2-b')).toEqual(before);
  expect(await addReferences('marshdesk-2-b', csv)).toEqual({ saved: true, message: '1 reading kept.' });
  const file = await referenceFile('marshdesk-2-b');
  expect(file.headers.get('content-type')).toContain('text/csv');
  expect(await file.text()).toContain('marshdesk-2-b,ohm:VIN,81000,job 12');
  expect((await referenceFile('nowhere')).status).toBe(404);
});

test('a repaired job gives its readings as known good once, an open one none', async () => {
  const first = await keepLesson(26);
  expect(first).toEqual({ saved: true, message: expect.stringMatching(/^\d+ readings and 0 reports kept\.$/) });
  const kept = (await listReferences(db, 'heronlog-4-c')).filter((r) => r.source === 'job 26');
  await keepLesson(26);
  expect((await listReferences(db, 'heronlog-4-c')).filter((r) => r.source === 'job 26')).toEqual(kept);
  expect(kept.length).toBeGreaterThan(5);
  expect((await keepLesson(31)).message).toMatch(/^Expected a job closed as repaired/);
  expect((await keepLesson(4711)).saved).toBe(false);
});

test('the same point from the same board is kept once, with its newest value', async () => {
  const at = (value: number) => [{ boardId: 'heronlog-4-c', point: 'ohm:VSYS', value, source: 'job 77' }];
  await keepReferences(db, at(10), '2026-11-24T08:00:00.000Z');
  await keepReferences(db, at(12), '2026-11-24T09:00:00.000Z');
  const mine = (await listReferences(db, 'heronlog-4-c')).filter((r) => r.source === 'job 77');
  expect(mine.map((r) => r.value)).toEqual([12]);
});

test('reports read in the shop’s words from then on; an empty heading is refused', async () => {
  expect(await keepReportWords({ heading: ' ' })).toMatchObject({
    saved: false,
    message: expect.stringMatching(/heading/),
  });
  const words = { shop: 'The Jetty Bench', heading: 'Job {job}', closing: 'Keep {device} dry.', money: 'M' };
  expect(await keepReportWords(words)).toMatchObject({ saved: true });
  expect(await loadReportWords()).toEqual(words);
  expect(await loadReport(26)).toMatchObject({
    shop: 'The Jetty Bench',
    title: 'Job 0026',
    closing: 'Keep Heronlog 4 dry.',
  });
});

test('what a job taught is taken back as it was written back', async () => {
  expect(await isLessonKept(26)).toBe(true);
  expect((await listReferences(db, 'heronlog-4-c')).some((r) => r.source === 'job 26')).toBe(true);
  expect(await dropLesson(26)).toMatchObject({ saved: true });
  expect(await isLessonKept(26)).toBe(false);
  const left = await listReferences(db, 'heronlog-4-c');
  expect([left.some((r) => r.source === 'job 26'), left.length > 0]).toEqual([false, true]);
  expect(await dropLesson(4711)).toMatchObject({ saved: false });
});
