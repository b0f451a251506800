/** The record's seals: what is changed, taken out, slipped in or cut off outside of the program shows. */
import { createHash } from 'node:crypto';
import { sql, type SQL } from 'drizzle-orm';
import type { Database } from './client';
import { appendEvent, openJob } from './jobs';
import { checkSeals, sealOfJob } from './seals';
import { temporaryDatabase } from './tests/temporary';

let db: Database;
let remove: () => void;
let job: number;
const AT = '2026-11-29T08:00:00.000Z';
const note = (text: string) =>
  appendEvent(db, job, { body: { kind: 'note', text } }, { key: text, at: AT, bench: 'Bench 1', actor: 'Mira' });

beforeEach(async () => {
  ({ db, remove } = await temporaryDatabase());
  job = await openJob(db, 'heronlog-4-c', AT);
  for (const text of ['one', 'two', 'three', 'four']) await note(text);
});
afterEach(() => remove());

const brokenAt = async (writtenDown?: string) => (await checkSeals(db, writtenDown)).jobs.broken?.id;

test('a seal is SHA-256 over the one before it and the entry’s own columns, as anybody can compute them', async () => {
  const rows = await db.all<Record<string, string | number | null>>(sql`select * from job_events order by id`);
  const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');
  let before = 'the first entry';
  for (const r of rows) {
    const columns = [r.job_number, r.seq, r.key, r.at, r.bench, r.actor, r.replaces, r.origin, sha256(String(r.body))];
    before = sha256(JSON.stringify([before, ...columns]));
    expect(r.seal).toBe(before);
  }
  expect(await sealOfJob(db, job)).toBe(before);
});

const CHANGES: readonly (readonly [string, SQL, number | undefined])[] = [
  ['a word changed', sql`update job_events set body = replace(body, 'two', 'too') where seq = 2`, 2],
  ['a name changed', sql`update job_events set actor = 'Nobody' where seq = 3`, 3],
  ['an hour changed', sql`update job_events set at = '2026-11-29T09:00:00.000Z' where seq = 1`, 1],
  ['an entry taken out', sql`delete from job_events where seq = 2`, 3],
  ['a seal taken off', sql`update job_events set seal = null where seq = 3`, 3],
  ['nothing', sql`select 1`, undefined],
];

test.each(CHANGES)('%s shows at its place', async (_, change, at) => {
  await db.run(change);
  expect(await brokenAt()).toBe(at);
});

test('entries cut off at the end show against a seal that was written down', async () => {
  const seal = await sealOfJob(db, job);
  await db.run(sql`delete from job_events where seq = 4`);
  expect(await brokenAt()).toBeUndefined();
  expect(await brokenAt(seal)).toBe(0);
});

test('a record from before seals were kept is sealed from the next entry on', async () => {
  await db.run(sql`update job_events set seal = null`);
  await note('five');
  expect((await checkSeals(db)).jobs).toMatchObject({ before: 4, sealed: 1, broken: undefined });
});
