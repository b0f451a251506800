import { custodyOf, type EventBody } from '../core/job';
import { findBoard, listBoards } from './boards';
import { openDatabase, type Database } from './client';
import { imageBytes, keepImage, listImages } from './images';
import { queryJobs } from './job-summaries';
import { appendEvent as append, jobEventsOf, openJob } from './jobs';
import { Lock } from './lock';
import { temporaryDatabase } from './tests/temporary';

let db: Database;
let url: string;
let remove: () => void;
beforeEach(async () => ({ db, url, remove } = await temporaryDatabase()));
afterEach(() => remove());

const AT = '2026-11-24T08:00:00.000Z';
const meta = (key: string) => ({ key, at: AT, bench: 'Bench 1', actor: 'Apprentice' });
/** As loaders do: each event in a transaction of its own. */
const appendEvent = (on: Database, ...rest: Parameters<typeof append> extends [unknown, ...infer R] ? R : never) =>
  on.transaction((tx) => append(tx, ...rest));
const summaries = async () => (await queryJobs(db, { limit: 100 })).jobs;
const note = (text: string): EventBody => ({ kind: 'note', text });

test('fifty entries at once from two tabs are all stored, numbered without a gap', async () => {
  const number = await openJob(db, 'heronlog-4-c', AT);
  await Promise.all(
    Array.from({ length: 50 }, (_, i) => appendEvent(db, number, { body: note(`entry ${i}`) }, meta(`k${i}`))),
  );
  const events = await jobEventsOf(db, number);
  expect(events.map((e) => e.seq)).toEqual(Array.from({ length: 50 }, (_, i) => i + 1));
  expect(new Set(events.map((e) => (e.body.kind === 'note' ? e.body.text : ''))).size).toBe(50);
});

test('the same key delivered twice is stored once', async () => {
  const number = await openJob(db, 'heronlog-4-c', AT);
  const first = await appendEvent(db, number, { body: note('once') }, meta('same'));
  const again = await appendEvent(db, number, { body: note('once') }, meta('same'));
  expect(again).toEqual(first);
  expect(await jobEventsOf(db, number)).toHaveLength(1);
});

test('what is stored is there for another connection at once', async () => {
  const number = await openJob(db, 'heronlog-4-c', AT);
  await appendEvent(db, number, { body: note('on disk') }, meta('disk'));
  const other = await openDatabase(url);
  expect(await jobEventsOf(other, number)).toHaveLength(1);
});

test('images are kept by their SHA-256, the same bytes once', async () => {
  const bytes = Uint8Array.from({ length: 5000 }, (_, i) => i & 0xff);
  const a = await keepImage(db, { bytes, name: 'first', familyId: 'heron-pd', at: AT });
  const b = await keepImage(db, { bytes, name: 'second', familyId: 'heron-pd', at: AT });
  expect(b).toBe(a);
  expect((await listImages(db, 'heron-pd')).map((i) => i.name)).toEqual(['first']);
  expect(await imageBytes(db, a)).toEqual(bytes);
  expect(await imageBytes(db, '0'.repeat(64))).toBeUndefined();
});

test('the jobs’ list knows the outcome, and that an undone closing does not count', async () => {
  const closed = await openJob(db, 'heronlog-4-c', AT);
  await appendEvent(db, closed, { body: { kind: 'close', outcome: 'stopped', cause: 'bent' } }, meta('c'));
  const reopened = await openJob(db, 'heronlog-4-c', AT);
  await appendEvent(db, reopened, { body: { kind: 'close', outcome: 'repaired', cause: '' } }, meta('d'));
  await appendEvent(db, reopened, { body: { kind: 'undo', seq: 1 } }, meta('e'));
  const story: EventBody = {
    kind: 'story',
    symptom: 'bulges',
    history: [],
    dataMatters: false,
    locked: false,
    consent: true,
    pack: 'swollen',
  };
  await appendEvent(db, reopened, { body: story }, meta('f'));
  expect((await summaries()).find((j) => j.number === reopened)).toMatchObject({
    symptom: 'bulges',
    swollen: true,
  });
  const outcomes = new Map((await summaries()).map((j) => [j.number, j.outcome]));
  expect(outcomes.get(closed)).toBe('stopped');
  expect(outcomes.get(reopened)).toBeUndefined();

  await appendEvent(db, closed, { body: { kind: 'reopen', symptom: 'dead again' } }, meta('g'));
  const after = async () => (await summaries()).find((j) => j.number === closed)!;
  expect(await after()).toMatchObject({ outcome: undefined, symptom: 'dead again' });
  await appendEvent(db, closed, { body: { kind: 'undo', seq: 2 } }, meta('h'));
  expect(await after()).toMatchObject({ outcome: 'stopped', symptom: '' });
});

test('images that come at the same moment are sealed one with the other', async () => {
  const job = await openJob(db, 'heronlog-4-c', AT);
  const image = (k: number): EventBody => ({
    kind: 'image',
    ...{ role: 'patient', sha256: String(k).padStart(64, '0'), name: `dump ${k}`, sizeBytes: 16, sound: true },
  });
  await Promise.all(Array.from({ length: 20 }, (_, k) => appendEvent(db, job, { body: image(k) }, meta(`seal-${k}`))));
  const links = custodyOf(await jobEventsOf(db, job));
  expect(links).toHaveLength(20);
  expect(links.every((l) => l.holds)).toBe(true);
  // What a caller says of the chain does not count.
  await appendEvent(db, job, { body: { ...image(20), after: 'f'.repeat(64) } as EventBody }, meta('seal-false'));
  expect(custodyOf(await jobEventsOf(db, job)).every((l) => l.holds)).toBe(true);
});

test('boards come back as they were stored, one object for each file', async () => {
  expect((await listBoards(db)).map((b) => b.id)).toEqual(['heronlog-4-c']);
  expect(await findBoard(db, 'heronlog-4-c')).toBe(await findBoard(db, 'heronlog-4-c'));
  expect(await findBoard(db, 'none')).toBeUndefined();
});

test('a write through the outer handle inside a transaction is named, not left hanging', async () => {
  const lock = new Lock();
  const release = await lock.acquire();
  await expect(lock.acquire(30)).rejects.toThrow('inside a transaction, write through tx only');
  release();
  (await lock.acquire(30))();
});
