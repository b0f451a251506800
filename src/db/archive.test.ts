/** Everything out, everything in: the same hash, nothing twice, nothing that was changed on the way. */
import { sql } from 'drizzle-orm';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { demoBoard } from '../../demo/files';
import { bringIn, readArchive, writeArchive } from './archive';
import { saveBoard } from './boards';
import { openDatabase, type Database } from './client';
import { keepImage } from './images';
import { appendEvent, jobEventsOf, openJob } from './jobs';
import { checkSeals } from './seals';
import { appendStock } from './stock';
import { temporaryDatabase } from './tests/temporary';

const AT = '2026-11-29T08:00:00.000Z';
const NOW = new Date(AT);
let shop: Database;
let job: number;
const ends: (() => void)[] = [];

const note = (db: Database, number: number, text: string) =>
  appendEvent(db, number, { body: { kind: 'note', text } }, { key: text, at: AT, bench: 'Bench 1', actor: 'Mira' });

async function emptyShop(): Promise<Database> {
  const { db, url, remove } = await temporaryDatabase();
  ends.push(remove);
  // Without the board that it begins with.
  await db.run(sql`delete from board_revisions`);
  await db.run(sql`delete from boards`);
  return openDatabase(url);
}

beforeEach(async () => {
  const made = await temporaryDatabase();
  shop = made.db;
  ends.push(made.remove);
  job = await openJob(shop, 'heronlog-4-c', AT);
  for (const text of ['one', 'two', 'three']) await note(shop, job, text);
  await keepImage(shop, { bytes: Uint8Array.from({ length: 300 }, (_, i) => i % 251), name: 'dump.bin', at: AT });
  await appendStock(
    shop,
    [{ kind: 'lotIn', lot: 'L-1', typeId: 'heron-pd-r2', count: 10, unitPrice: 8.5, sealed: true }],
    {
      ...{ key: 'lot', at: AT, bench: 'Bench 1', actor: 'Mira' },
    },
  );
});
afterEach(() => ends.splice(0).forEach((end) => end()));

test('out of one shop and into an empty one: the hash is the same, and the seals hold there', async () => {
  const out = await writeArchive(shop, NOW);
  const other = await emptyShop();
  const brought = await bringIn(other, out.bytes);
  expect(brought).toMatchObject({ ok: true, value: { jobs: 1, entries: 3, sha256: out.manifest.sha256 } });
  expect((await writeArchive(other, NOW)).manifest.sha256).toBe(out.manifest.sha256);
  expect(await checkSeals(other)).toEqual(await checkSeals(shop));
  expect(await jobEventsOf(other, job)).toEqual(await jobEventsOf(shop, job));
});

test('beside another shop’s: a taken number gives way, the same twice is there once, what came since is added', async () => {
  const { db: other, remove } = await temporaryDatabase();
  ends.push(remove);
  const own = await openJob(other, 'heronlog-4-c', '2026-11-01T08:00:00.000Z');
  await note(other, own, 'ours');
  const first = await bringIn(other, (await writeArchive(shop, NOW)).bytes);
  expect(first).toMatchObject({ ok: true, value: { jobs: 1, entries: 3, renumbered: [[job, own + 1]] } });
  const after = (await writeArchive(other, NOW)).manifest.sha256;
  expect(await bringIn(other, (await writeArchive(shop, NOW)).bytes)).toMatchObject({
    ok: true,
    value: { jobs: 0, entries: 0 },
  });
  expect((await writeArchive(other, NOW)).manifest.sha256).toBe(after);
  await note(other, own + 1, 'added here');
  await note(shop, job, 'four');
  expect(await bringIn(other, (await writeArchive(shop, NOW)).bytes)).toMatchObject({
    ok: true,
    value: { jobs: 0, entries: 1 },
  });
  const texts = (await jobEventsOf(other, own + 1)).map((e) => ('text' in e.body ? e.body.text : ''));
  expect(texts).toEqual(['one', 'two', 'three', 'added here', 'four']);
  expect((await checkSeals(other)).jobs.broken).toBeUndefined();
});

test('a board file of other words becomes the next revision, and its jobs stay on it', async () => {
  const board = demoBoard('heronlog-4-c');
  const { db: other, remove } = await temporaryDatabase();
  ends.push(remove);
  await saveBoard(shop, { ...board, name: `${board.name}, theirs` }, AT);
  const theirs = await openJob(shop, 'heronlog-4-c', '2026-11-28T08:00:00.000Z');
  await saveBoard(other, { ...board, name: `${board.name}, ours` }, AT);
  await bringIn(other, (await writeArchive(shop, NOW)).bytes);
  const rows = await other.all<{ revision: number; json: string }>(
    sql`select revision, json from board_revisions order by revision`,
  );
  expect(rows.map((r) => (JSON.parse(r.json) as { name: string }).name.split(', ')[1])).toEqual([
    undefined,
    'ours',
    'theirs',
  ]);
  const [moved] = await other.all<{ board_revision: number }>(
    sql`select board_revision from jobs where number = ${theirs}`,
  );
  expect(moved.board_revision).toBe(3);
});

test('what was changed on the way, torn, or is no archive is refused with a sentence, and nothing is brought in', async () => {
  const { bytes } = await writeArchive(shop, NOW);
  const files = unzipSync(bytes);
  const changed = { ...files, 'job_events.jsonl': strToU8(strFromU8(files['job_events.jsonl']).replace('two', 'too')) };
  const missing = Object.fromEntries(Object.entries(files).filter(([name]) => name !== 'jobs.jsonl'));
  const other = await emptyShop();
  const before = (await writeArchive(other, NOW)).manifest.sha256;
  for (const [given, words] of [
    [zipSync(changed), /^Expected job_events\.jsonl as it was written; its hash is another one/],
    [zipSync(missing), /^Expected jobs\.jsonl in the archive/],
    [bytes.subarray(0, bytes.length / 2), /cannot be unpacked/],
    [strToU8('no archive'), /cannot be unpacked/],
  ] as const) {
    const answer = await bringIn(other, given);
    expect(answer.ok ? '' : answer.problems[0].message).toMatch(words);
  }
  expect((await writeArchive(other, NOW)).manifest.sha256).toBe(before);
});

test('sign-ins, passwords and what cookies are signed with are not in it', async () => {
  await shop.run(sql`insert into settings (name, json) values ('cookieSecret', '"do not tell"')`);
  const { bytes } = await writeArchive(shop, NOW);
  const files = unzipSync(bytes);
  expect(Object.keys(files).filter((f) => /^(user|session|account|verification|confirmations)/.test(f))).toEqual([]);
  expect(Object.values(files).some((f) => strFromU8(f, true).includes('do not tell'))).toBe(false);
  expect(readArchive(bytes).ok).toBe(true);
});
