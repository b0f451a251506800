import { execFile } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { promisify } from 'node:util';
import { createClient } from '@libsql/client';
import { problemText } from '../core/result';
import { backUp, contentHash, lastCopy, restore, thinned, type KeptCopy } from './backup';
import { openDatabase } from './client';
import { temporaryDatabase } from './tests/temporary';

const run = promisify(execFile);

async function shop(): Promise<{ url: string; folder: string; remove: () => void }> {
  const { url, remove } = await temporaryDatabase();
  return { url, folder: path.join(path.dirname(url.slice(5)), 'copies'), remove };
}

async function made(url: string, folder: string, at: string): Promise<KeptCopy> {
  const copy = await backUp(url, folder, new Date(at));
  if (!copy.ok) throw new Error(problemText(copy.problems));
  return copy.value;
}

test('a copy holds what the shop holds, is its owner’s alone, and restores into a new file with the same content', async () => {
  const { url, folder, remove } = await shop();
  const copy = await made(url, folder, '2026-11-20T10:00:00Z');
  const client = createClient({ url });
  expect((await contentHash(client)).sha256).toBe(copy.sha256);
  client.close();
  expect(statSync(copy.file).mode & 0o077).toBe(0);
  expect(lastCopy(folder)).toMatchObject({ at: '2026-11-20T10:00:00.000Z', rows: copy.rows });
  const into = path.join(folder, 'restored.db');
  expect(await restore(copy.file, into)).toMatchObject({ ok: true, value: { sha256: copy.sha256 } });
  // It opens as the shop's own.
  const opened = await openDatabase(`file:${into}`);
  expect(await opened.$count((await import('./schema')).boards)).toBe(1);
  remove();
});

test('what is there is never written over; a changed, torn or unnamed copy is refused, and nothing is left behind', async () => {
  const { url, folder, remove } = await shop();
  const copy = await made(url, folder, '2026-11-20T10:00:00Z');
  const into = path.join(folder, 'restored.db');
  const refused = async (file: string, to = into): Promise<string> => {
    const answer = await restore(file, to);
    return answer.ok ? 'restored' : problemText(answer.problems);
  };
  expect(await refused(copy.file, copy.file)).toMatch(/^Expected a new file to restore into/);
  const changed = path.join(folder, 'changed.db');
  copyFileSync(copy.file, changed);
  copyFileSync(`${copy.file}.json`, `${changed}.json`);
  const client = createClient({ url: `file:${changed}` });
  await client.execute('create table extra (a)');
  client.close();
  expect(await refused(changed)).toMatch(/^Expected the content that/);
  const torn = path.join(folder, 'torn.db');
  writeFileSync(torn, readFileSync(copy.file).subarray(0, 5000));
  expect(await refused(torn)).toMatch(/json beside the copy/);
  copyFileSync(`${copy.file}.json`, `${torn}.json`);
  expect(await refused(torn)).toMatch(/^Expected a (sound copy|copy that can be read)/);
  expect(existsSync(into)).toBe(false);
  expect(readdirSync(folder).filter((name) => name.includes('.part'))).toEqual([]);
  remove();
});

test('a folder that cannot be written gets a sentence, and the copies that are there stay', async () => {
  const { url, folder, remove } = await shop();
  const copy = await made(url, folder, '2026-11-20T10:00:00Z');
  const again = await backUp(url, folder, new Date('2026-11-20T10:00:00Z'));
  expect(!again.ok && problemText(again.problems)).toMatch(/^Expected a copy of a new second/);
  writeFileSync(path.join(folder, 'file'), 'no folder');
  const nowhere = await backUp(url, path.join(folder, 'file'), new Date('2026-11-20T11:00:00Z'));
  expect(!nowhere.ok && problemText(nowhere.problems)).toMatch(/it was not made: .*Older copies are untouched\.$/);
  expect(lastCopy(folder)?.sha256).toBe(copy.sha256);
  remove();
});

test('while entries are written by another program, a copy is one moment of them', async () => {
  const { url, folder, remove } = await shop();
  mkdirSync(folder, { recursive: true });
  const client = createClient({ url });
  await client.execute('create table pairs (a integer, b integer)');
  // Both rows of a pair are written in one transaction: a copy never holds one of them alone.
  const writer = (async () => {
    for (let k = 0; k < 400; k++) {
      await client.batch(
        [
          { sql: 'insert into pairs values (?, 1)', args: [k] },
          { sql: 'insert into pairs values (?, 2)', args: [k] },
        ],
        'write',
      );
    }
  })();
  const env = { ...process.env, DATABASE_URL: url };
  await run('npx', ['tsx', 'scripts/backup.ts', folder], { env });
  await writer;
  const copy = lastCopy(folder)!;
  const read = createClient({ url: `file:${copy.file}` });
  const { rows } = await read.execute('select a, count(*) as n from pairs group by a having n <> 2');
  expect(rows).toEqual([]);
  expect((await contentHash(read)).sha256).toBe(copy.sha256);
  read.close();
  client.close();
  remove();
}, 60_000);

test('copies thin out: all of a day, one a day for thirty days, one a month beyond, the newest of each', () => {
  const now = new Date('2026-11-20T12:00:00Z');
  const hours = Array.from({ length: 24 * 100 }, (_, h) => new Date(now.getTime() - h * 3_600_000));
  const names = hours.map((at) => `unisolda-${at.toISOString().slice(0, 19).replaceAll(':', '-')}Z.db`);
  const gone = new Set(thinned(names, now));
  const kept = names.filter((name) => !gone.has(name));
  expect(kept.filter((_, i) => i < 24)).toEqual(names.slice(0, 24));
  const older = kept.filter((name) => !names.slice(0, 24).includes(name));
  const days = older.filter((name) => name.slice(9, 19) > '2026-10-21');
  expect(new Set(days.map((name) => name.slice(9, 19))).size).toBe(days.length);
  expect(days.length).toBeGreaterThan(27);
  // Within each of the days and months it is the last hour that stayed.
  expect(days.slice(1).every((name) => name.includes('T23-00-00'))).toBe(true);
  expect(kept.some((name) => name.startsWith('unisolda-2026-08'))).toBe(true);
  expect(thinned(['notes.txt'], now)).toEqual([]);
});
