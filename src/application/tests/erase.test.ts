/** An owner's data goes on request: out of the file and its log too; that it went stays, and the seals hold. */
import { existsSync, readFileSync } from 'node:fs';
import type { Story } from '../../core/job';
import type { Database } from '../../db/client';
import { writeArchive } from '../../db/archive';
import { jobEventsOf } from '../../db/jobs';
import { keepImage } from '../../db/images';
import { checkSeals } from '../../db/seals';
import { temporaryDatabase } from '../../db/tests/temporary';
import { eraseOwner } from '../jobs/erase';
import { countDue, eraseDue, keepRetention } from '../shop/retention';
import { enter, enterLine } from '../jobs/execute';
import { loadJob } from '../jobs/load-job';
import { openJob } from '../jobs/open-job';

const SECRET = 'zaunkoenig-letters';
const STORY: Story = {
  kind: 'story',
  ...{ symptom: `${SECRET} do not load`, history: [], dataMatters: true, locked: false, consent: true, pack: 'sound' },
};
const PIXELS = Uint8Array.from({ length: 5000 }, (_, i) => (i * 7919) % 251);

let db: Database;
let file: string;
let remove: () => void;
let job: number;
beforeEach(async () => {
  const made = await temporaryDatabase();
  ({ db, remove } = made);
  file = made.url.slice(5);
  job = (await openJob(db, 'heronlog-4-c', STORY, 'a device')).job!;
  await enterLine(db, job, `note ${SECRET} once more`, 'ohm', 'n');
  await enterLine(db, job, 'tp7 1.62 ohm', 'ohm', 'r');
  const sha256 = await keepImage(db, { bytes: PIXELS, name: 'p.png', at: '2026-11-29T08:00:00.000Z' });
  await enter(db, job, { kind: 'picture', sha256, words: SECRET, masks: 0 }, 'p');
});
afterEach(() => remove());

const onDisk = (what: Uint8Array | string): boolean =>
  [file, `${file}-wal`].some((f) => existsSync(f) && readFileSync(f).includes(Buffer.from(what)));
const close = () => enter(db, job, { kind: 'close', outcome: 'stopped', cause: '', reason: 'no part' }, 'c');

test('of an open job nothing is erased: its work rests on it', async () => {
  expect(await eraseOwner(db, job, 'e')).toMatchObject({ saved: false });
  expect(onDisk(SECRET)).toBe(true);
});

test('of a closed job words and pictures are gone from the file and its log, from memory and from what goes out', async () => {
  await close();
  expect((await loadJob(db, job)).ok).toBe(true);
  expect(onDisk(PIXELS.subarray(100, 400))).toBe(true);
  expect(await eraseOwner(db, job, 'e')).toMatchObject({
    saved: true,
    message: expect.stringMatching(/^Owner's data erased/) as string,
  });
  expect([onDisk(SECRET), onDisk(PIXELS.subarray(100, 400))]).toEqual([false, false]);
  expect(Buffer.from((await writeArchive(db, new Date())).bytes).includes(SECRET)).toBe(false);
  const view = await loadJob(db, job);
  expect(JSON.stringify(view.ok && view.value)).not.toContain(SECRET);
  const events = await jobEventsOf(db, job);
  expect(events.filter((e) => e.body.kind === 'reading')).toHaveLength(1);
  expect(events.at(-1)!.body).toMatchObject({
    kind: 'note',
    text: "Owner's data erased at the owner's request: 3 entries, 1 pictures and images.",
  });
  expect((await checkSeals(db)).jobs.broken).toBeUndefined();
});

test('by the shop’s own time what is old enough goes by itself, once, and nothing where no time was set', async () => {
  await close();
  const later = (months: number): Date => {
    const at = new Date();
    at.setUTCMonth(at.getUTCMonth() + months, 28);
    return at;
  };
  expect(await eraseDue(db, later(60))).toEqual([]);
  for (const months of [0, 1.5, 1000, 'x'])
    expect(await keepRetention(db, { months })).toMatchObject({ saved: false, code: 'badInput' });
  expect(await keepRetention(db, { months: 6 })).toMatchObject({ saved: true });
  expect([await countDue(db, later(5)), await countDue(db, later(8))]).toEqual([0, 1]);
  expect(await eraseDue(db, later(5))).toEqual([]);
  expect(onDisk(SECRET)).toBe(true);
  expect(await eraseDue(db, later(8))).toEqual([job]);
  expect([onDisk(SECRET), onDisk(PIXELS.subarray(100, 400))]).toEqual([false, false]);
  expect((await jobEventsOf(db, job)).at(-1)!.body).toMatchObject({
    text: "Owner's data erased by the shop's own time of 6 months: 3 entries, 1 pictures and images.",
  });
  expect(await eraseDue(db, later(60))).toEqual([]);
  expect((await checkSeals(db)).jobs.broken).toBeUndefined();
  expect(await keepRetention(db, { months: null })).toMatchObject({ saved: true });
});

test('an open job keeps its owner’s words, however old it is', async () => {
  await keepRetention(db, { months: 1 });
  expect(await eraseDue(db, new Date('2040-01-01T00:00:00Z'))).toEqual([]);
  expect(onDisk(SECRET)).toBe(true);
});
