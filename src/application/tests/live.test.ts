/** What other benches hear of an entry, and when. */
import type { Database } from '../../db/client';
import { newestEventOf, openJob } from '../../db/jobs';
import { temporaryDatabase } from '../../db/tests/temporary';
import { enterLine } from '../jobs/execute';
import { listen, liveStream, MOST_LISTENERS, type Heard } from '../live';

let db: Database;
let remove: () => void;
let job: number;
beforeEach(async () => {
  ({ db, remove } = await temporaryDatabase());
  job = await openJob(db, 'heronlog-4-c', '2026-11-24T08:00:00.000Z');
});
afterEach(() => remove());

async function heardWhile(work: () => Promise<unknown>): Promise<Heard[]> {
  const heard: Heard[] = [];
  const leave = listen((h) => void heard.push(h))!;
  await work();
  leave();
  return heard;
}

const reader = (scope: string, newest: number, signal = new AbortController().signal) => {
  const read = liveStream(scope, newest, signal)!.getReader();
  const decoder = new TextDecoder();
  return {
    next: async (): Promise<string | undefined> => {
      const { value, done } = await read.read();
      return done ? undefined : decoder.decode(value);
    },
    cancel: () => read.cancel(),
  };
};

test('an entry is heard once, with who made it, and is on disk by then', async () => {
  const seen: Promise<number | undefined>[] = [];
  const leave = listen(() => void seen.push(newestEventOf(db, job)))!;
  const heard = await heardWhile(() => enterLine(db, job, 'tp7 1.62 ohm', 'ohm', 'k'));
  leave();
  expect(heard).toEqual([{ scope: `job ${job}`, seq: 1, actor: 'Bench lead', bench: 'Bench 1' }]);
  expect(await Promise.all(seen)).toEqual([1]);
});

test('what is refused, and what was delivered before, is not heard', async () => {
  await enterLine(db, job, 'tp7 1.62 ohm', 'ohm', 'k');
  expect(await heardWhile(() => enterLine(db, job, 'tp7 1.62 ohm', 'ohm', 'k'))).toEqual([]);
  expect(await heardWhile(() => enterLine(db, job, 'on u4 new', 'ohm', 'other'))).toEqual([]);
});

test('a page hears where its job stands, then what is entered to it, and nothing of other jobs', async () => {
  const other = await openJob(db, 'heronlog-4-c', '2026-11-24T08:00:00.000Z');
  const page = reader(`job ${job}`, 0);
  expect(await page.next()).toBe('event: at\ndata: {"seq":0}\n\n');
  await enterLine(db, other, 'note elsewhere', 'ohm', 'a');
  await enterLine(db, job, 'note here', 'ohm', 'b');
  expect(await page.next()).toMatch(/^event: entered\ndata: \{"scope":"job \d+","seq":1,/);
  await page.cancel();
});

test('who is gone leaves; there is room for no more than was said', async () => {
  const gone = new AbortController();
  const page = reader('job 1', 0, gone.signal);
  await page.next();
  gone.abort();
  expect(await page.next()).toBeUndefined();
  const leaves = Array.from({ length: MOST_LISTENERS }, () => listen(() => undefined));
  expect(leaves.every((l) => l !== undefined)).toBe(true);
  expect(liveStream('job 1', 0, gone.signal)).toBeUndefined();
  leaves.forEach((leave) => leave!());
  expect(listen(() => undefined)).toBeDefined();
});

test('a page that left, and whose request then ends, is gone once; who cannot hear harms no entry', async () => {
  const gone = new AbortController();
  const page = reader('job 1', 0, gone.signal);
  await page.next();
  await page.cancel();
  expect(() => gone.abort()).not.toThrow();
  const [deaf, heard]: number[][] = [[], []];
  listen(() => {
    deaf.push(1);
    throw new Error('closed');
  });
  const leave = listen(() => void heard.push(1))!;
  expect(await enterLine(db, job, 'note one', 'ohm', 'a')).toMatchObject({ saved: true });
  expect(await enterLine(db, job, 'note two', 'ohm', 'b')).toMatchObject({ saved: true });
  leave();
  expect([deaf.length, heard.length]).toEqual([1, 2]);
});

test('a job that there is has a newest event, another has none', async () => {
  expect(await newestEventOf(db, job)).toBe(0);
  await enterLine(db, job, 'note one', 'ohm', 'n');
  expect([await newestEventOf(db, job), await newestEventOf(db, 9999)]).toEqual([1, undefined]);
});
