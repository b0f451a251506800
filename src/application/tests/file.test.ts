/** What a bench says and keeps when its database file is taken from under it. Each is done to a real file. */
import { spawn } from 'node:child_process';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { demoBoard } from '../../../demo/files';
import { saveBoard } from '../../db/boards';
import { openDatabase, OpenProblem, type Database } from '../../db/client';
import { jobEventsOf, openJob } from '../../db/jobs';
import { enter } from '../jobs/execute';

// Other programs are started here.
jest.setTimeout(40_000);

let folder: string;
let file: string;
let db: Database;
let job: number;
const AT = '2026-11-24T08:00:00.000Z';
const open = (of = file, begin = false) => openDatabase(`file:${of}`, { begin });
const note = (on: Database, text: string) => enter(on, job, { kind: 'note', text });

async function shop(of: string): Promise<Database> {
  const made = await open(of, true);
  await saveBoard(made, demoBoard('heronlog-4-c'), AT);
  return made;
}

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'unisolda-file-'));
  file = path.join(folder, 'shop.db');
  db = await shop(file);
  job = await openJob(db, 'heronlog-4-c', AT);
  expect(await note(db, 'before')).toMatchObject({ saved: true });
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const savedCopy = (): string =>
  path.join(
    folder,
    readdirSync(folder).find((f) => f.includes('.saved-'))!,
  );

/** Refused, with a sentence; and no later entry is said to be kept either. */
async function stops(sentence: RegExp): Promise<void> {
  const answer = await note(db, 'after');
  expect(answer).toMatchObject({ saved: false, code: 'fileGone', message: expect.stringMatching(sentence) });
  expect(await note(db, 'later')).toMatchObject({ saved: false, code: 'fileGone' });
}

test('deleted while running: entries stop, and what was in it is saved beside it', async () => {
  rmSync(file);
  await stops(/was deleted while the bench was running/);
  expect(existsSync(file)).toBe(false);
  const saved = await open(savedCopy());
  expect((await jobEventsOf(saved, job)).map((e) => e.body)).toEqual([{ kind: 'note', text: 'before' }]);
});

test('replaced by another shop’s file: entries stop, and the other is not written to', async () => {
  const other = path.join(folder, 'other.db');
  await (await shop(other)).run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
  renameSync(other, file);
  const before = statSync(file).mtimeMs;
  await stops(/Another file lies in the place/);
  expect(statSync(file).mtimeMs).toBe(before);
  expect((await jobEventsOf(await open(savedCopy()), job)).length).toBe(1);
});

test('overwritten in its place by another shop’s file: entries stop', async () => {
  const other = path.join(folder, 'other.db');
  await (await shop(other)).run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
  copyFileSync(other, file);
  await stops(/Another file lies in the place|was cut/);
});

test('cut to half: entries stop with what was expected and got', async () => {
  truncateSync(file, statSync(file).size / 2);
  await stops(/was cut: expected at least \d+ bytes; got \d+/);
});

test('its log deleted: what was kept last was in it, and entries stop', async () => {
  rmSync(`${file}-wal`);
  await stops(/log beside the database/);
});

test('a full disk is a sentence, and entries go on once there is room', async () => {
  const [{ page_count }] = await db.all<{ page_count: number }>(sql`PRAGMA page_count`);
  const cap = (pages: number) => db.run(sql.raw(`PRAGMA max_page_count=${pages}`));
  await cap(page_count);
  const big = { kind: 'note' as const, text: 'x'.repeat(390) };
  const answers = [];
  // One after the other: the limit is that of one connection.
  for (let i = 0; i < 60; i++) answers.push(await enter(db, job, big));
  const full = answers.filter((a) => !a.saved);
  expect(full.length).toBeGreaterThan(0);
  expect(full[0]).toMatchObject({ code: 'full', message: expect.stringMatching(/^The disk is full/) });
  // What is said to be kept is there for another program, and nothing else.
  const kept = answers.filter((a) => a.saved).length;
  expect(await jobEventsOf(await open(), job)).toHaveLength(1 + kept);
  await cap(1_000_000);
  expect(await enter(db, job, big)).toMatchObject({ saved: true });
});

test('held by another program for long: a sentence, and nothing is half kept', async () => {
  const holder = spawn(process.execPath, [
    '--input-type=module',
    '-e',
    `import { createClient } from '@libsql/client';
     const tx = await createClient({ url: 'file:${file}' }).transaction('write');
     process.stdout.write('held');
     setTimeout(() => tx.close(), 60000);`,
  ]);
  try {
    await new Promise((resolve) => holder.stdout.once('data', resolve));
    expect(await note(db, 'waits')).toMatchObject({ saved: false, code: 'busy' });
    expect(await jobEventsOf(db, job)).toHaveLength(1);
  } finally {
    const ended = new Promise((resolve) => holder.once('exit', resolve));
    holder.kill();
    await ended;
  }
});

/** Another program that enters notes of its own, one after the other, as fast as the file takes them. */
const OTHER = `
  import { openDatabase } from './src/db/client';
  import { enter } from './src/application/jobs/execute';
  const [url, job] = process.argv.slice(-2);
  openDatabase(url).then(async (db) => {
    for (let i = 0; i < 25; i++) {
      let answer;
      // As a hand does: not kept is entered again.
      do answer = await enter(db, Number(job), { kind: 'note', text: 'other ' + i });
      while (answer.code === 'busy');
      if (!answer.saved) throw new Error(answer.message);
    }
  });
`;

test('two programs that write to one file at once lose nothing and keep nothing twice', async () => {
  const caches = path.join(process.cwd(), 'node_modules/.cache');
  mkdirSync(caches, { recursive: true });
  const script = path.join(caches, `other-${process.pid}.ts`);
  writeFileSync(script, OTHER.replaceAll("'./src/", `'${process.cwd()}/src/`));
  try {
    const other = spawn(process.execPath, ['node_modules/tsx/dist/cli.mjs', script, `file:${file}`, String(job)], {
      stdio: 'ignore',
    });
    const ended = new Promise((resolve) => other.once('exit', resolve));
    let own = 0;
    while (other.exitCode === null) {
      const answer = await note(db, `own ${own}`);
      // A busy machine lets one wait longer than the file does: that one was not kept, and is entered again.
      expect(answer).toMatchObject(answer.saved ? { message: 'Kept.' } : { code: 'busy' });
      if (answer.saved) own += 1;
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
    expect(await ended).toBe(0);
    const events = await jobEventsOf(db, job);
    expect(events.map((e) => e.seq)).toEqual(Array.from({ length: 1 + own + 25 }, (_, i) => i + 1));
    expect(new Set(events.map((e) => (e.body.kind === 'note' ? e.body.text : ''))).size).toBe(1 + own + 25);
  } finally {
    rmSync(script, { force: true });
  }
});

describe('opening', () => {
  const problemOf = (of: string) => open(of).catch((error: unknown) => error as Error);

  test('an empty shop is begun only when asked to', async () => {
    const none = path.join(folder, 'nowhere', 'shop.db');
    expect(await problemOf(none)).toMatchObject({ message: expect.stringMatching(/^Expected the shop's database at/) });
    expect(existsSync(none)).toBe(false);
    writeFileSync(path.join(folder, 'empty.db'), '');
    expect(await problemOf(path.join(folder, 'empty.db'))).toBeInstanceOf(OpenProblem);
  });

  test('a file that a newer version has written is refused and left as it is', async () => {
    await db.run(sql`insert into __drizzle_migrations (hash, created_at) values ('newer', 4102444800000)`);
    await db.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
    expect(await problemOf(file)).toMatchObject({ message: expect.stringMatching(/written by a newer version/) });
  });

  test('a file that is no database, or a damaged one, is refused with a sentence', async () => {
    const text = path.join(folder, 'text.db');
    writeFileSync(text, 'not a database, only long enough to look like one '.repeat(200));
    expect(await problemOf(text)).toBeInstanceOf(OpenProblem);
    await db.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
    const torn = path.join(folder, 'torn.db');
    copyFileSync(file, torn);
    truncateSync(torn, 4096 * 3);
    expect(await problemOf(torn)).toBeInstanceOf(OpenProblem);
  });
});
