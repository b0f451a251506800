/** The shop's copies while it works: into a folder it names, sound, restored beside, and missed when they grow old. */
import { chmodSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Database } from '../../db/client';
import { openDatabase } from '../../db/client';
import { jobEventsOf } from '../../db/jobs';
import { temporaryDatabase } from '../../db/tests/temporary';
import { enterLine } from '../jobs/execute';
import { openJob } from '../jobs/open-job';
import { copyNow, keepCopySetting, loadCopyState, restoreCopy } from '../shop/copies';

let db: Database;
let url: string;
let remove: () => void;
let folder: string;
let job: number;
beforeEach(async () => {
  ({ db, url, remove } = await temporaryDatabase());
  process.env.DATABASE_URL = url;
  folder = mkdtempSync(path.join(tmpdir(), 'unisolda-copies-'));
  const story = {
    kind: 'story',
    ...{ symptom: 'x', history: [], dataMatters: false, locked: false, consent: true },
  } as const;
  job = (await openJob(db, 'heronlog-4-c', { ...story, history: [], pack: 'sound' }, 'a device')).job!;
});
afterEach(() => {
  delete process.env.DATABASE_URL;
  remove();
  rmSync(folder, { recursive: true, force: true });
});

test('without a folder it is said that nothing is copied; with one a copy is made at once, also while entries come', async () => {
  expect((await loadCopyState(db, new Date())).warning).toMatch(/^Nothing is copied/);
  const writes = Array.from({ length: 30 }, (_, k) => enterLine(db, job, `note ${k}`, 'ohm', `k${k}`));
  const [kept] = await Promise.all([keepCopySetting(db, { folder, everyHours: 1 }), ...writes]);
  expect(kept).toMatchObject({ saved: true });
  const state = await loadCopyState(db, new Date());
  expect(state).toMatchObject({ warning: undefined, setting: { folder, everyHours: 1 } });
  expect((await jobEventsOf(db, job)).length).toBe(31);
  const copy = await openDatabase(`file:${path.join(folder, state.names[0])}`);
  expect((await jobEventsOf(copy, job)).length).toBeGreaterThan(0);
});

test('a copy is old after two and a half of its intervals, and missing when its folder is gone', async () => {
  await keepCopySetting(db, { folder, everyHours: 1 });
  const hours = (n: number): Date => new Date(Date.now() + n * 3_600_000);
  expect((await loadCopyState(db, hours(2))).warning).toBeUndefined();
  expect((await loadCopyState(db, hours(3))).warning).toBe(
    'The last good copy is 3 hours old; expected one every 1 hours.',
  );
  rmSync(folder, { recursive: true });
  expect((await loadCopyState(db, new Date())).warning).toMatch(/folder is gone/);
});

test('restored beside: the hash agrees and the content is there; another name is refused', async () => {
  await enterLine(db, job, 'note before', 'ohm', 'b');
  await keepCopySetting(db, { folder, everyHours: 1 });
  const [name] = (await loadCopyState(db, new Date())).names;
  const done = await restoreCopy(db, name, new Date());
  expect(done).toMatchObject({ saved: true });
  const file = readdirSync(path.dirname(url.slice(5))).find((f) => f.startsWith('restored-'))!;
  const restored = await openDatabase(`file:${path.join(path.dirname(url.slice(5)), file)}`);
  expect(await jobEventsOf(restored, job)).toEqual(await jobEventsOf(db, job));
  expect(await restoreCopy(db, '../shop.db', new Date())).toMatchObject({ saved: false, code: 'notFound' });
});

test('a folder that cannot be written to, or is no whole path, is refused, and what was set stays', async () => {
  await keepCopySetting(db, { folder, everyHours: 1 });
  expect(await keepCopySetting(db, { folder: 'copies', everyHours: 1 })).toMatchObject({ saved: false });
  expect(await keepCopySetting(db, { folder: '/proc/nowhere', everyHours: 1 })).toMatchObject({ saved: false });
  expect((await loadCopyState(db, new Date())).setting?.folder).toBe(folder);
  expect(existsSync(folder)).toBe(true);
  chmodSync(folder, 0o700);
  expect(await copyNow(db)).toMatchObject({ saved: expect.any(Boolean) as boolean });
});
