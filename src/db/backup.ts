import { createHash } from 'node:crypto';
import {
  chmodSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { createClient, type Client } from '@libsql/client';
import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { fail, ok, type Result } from '../core/result';
import type { Database } from './client';

/** What stands beside a copy: by it a restored one is known to be the same. */
const manifestSchema = z.object({
  format: z.literal('unisolda-copy/1'),
  at: z.iso.datetime(),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  rows: z.number().int().min(0),
});
export type CopyManifest = z.infer<typeof manifestSchema>;

export interface KeptCopy extends CopyManifest {
  readonly file: string;
}

const NAME = /^unisolda-(\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d)Z\.db$/;
const nameOf = (at: Date): string => `unisolda-${at.toISOString().slice(0, 19).replaceAll(':', '-')}Z.db`;
const takenAt = (name: string): Date | undefined => {
  const found = NAME.exec(name)?.[1];
  return found ? new Date(`${found.replace(/T(\d\d)-(\d\d)-(\d\d)/, 'T$1:$2:$3')}Z`) : undefined;
};

/**
 * Copies a database that may be in use into a folder (SQLite's VACUUM INTO: one moment of it, whole), looks the copy over, and thins
 * the older ones out. Nothing has the copy's name before it is known to be sound.
 */
export const backUp = (url: string, folder: string, now: Date): Promise<Result<KeptCopy>> =>
  backUpBy((into) => withClient(url, (client) => client.execute({ sql: 'VACUUM INTO ?', args: [into] })), folder, now);

/** The same from a program that has the database open: over its own handle, since closing another one would drop all locks it holds. */
export const backUpOpen = (db: Database, folder: string, now: Date): Promise<Result<KeptCopy>> =>
  backUpBy((into) => db.run(sql`VACUUM INTO ${into}`), folder, now);

async function backUpBy(
  copy: (into: string) => Promise<unknown>,
  folder: string,
  now: Date,
): Promise<Result<KeptCopy>> {
  const file = path.join(folder, nameOf(now));
  const part = `${file}.part`;
  if (existsSync(file)) return fail(`Expected a copy of a new second; ${file} is there already.`);
  try {
    // Its parent has to be there: made all the way down, a folder where none can be made is tried for ever.
    if (!existsSync(folder)) mkdirSync(folder);
    rmSync(part, { force: true });
    await copy(part);
    chmodSync(part, 0o600);
    const looked = await lookOver(part);
    if (!looked.ok) return looked;
    const manifest: CopyManifest = { format: 'unisolda-copy/1', at: now.toISOString(), ...looked.value };
    writeFileSync(`${file}.json`, `${JSON.stringify(manifest, null, 2)}\n`, { mode: 0o600 });
    renameSync(part, file);
    for (const name of thinned(copyNames(folder), now)) {
      rmSync(path.join(folder, name), { force: true });
      rmSync(path.join(folder, `${name}.json`), { force: true });
    }
    return ok({ ...manifest, file });
  } catch (error) {
    return fail(
      `Expected a copy in ${folder}; it was not made: ${error instanceof Error ? error.message : String(error)}. Older copies are untouched.`,
    );
  } finally {
    if (existsSync(part)) rmSync(part);
  }
}

const copyNames = (folder: string): string[] =>
  readdirSync(folder)
    .filter((name) => takenAt(name) !== undefined)
    .sort();

const DAY_MS = 24 * 3600 * 1000;

/** All copies of the last day stay, one a day for thirty days, one a month beyond: the names that go. Common practice, no source. */
export function thinned(names: readonly string[], now: Date): string[] {
  const kept = new Set<string>();
  return [...names]
    .sort()
    .toReversed()
    .filter((name) => {
      const at = takenAt(name);
      if (!at) return false;
      const ageMs = now.getTime() - at.getTime();
      if (ageMs < DAY_MS) return false;
      // Newest first: the last one of a day or month stands for it.
      const span = at.toISOString().slice(0, ageMs < 30 * DAY_MS ? 10 : 7);
      return kept.size === kept.add(span).size;
    });
}

/** The newest copy of a folder whose manifest can be read; undefined where there is none. */
export function lastCopy(folder: string): KeptCopy | undefined {
  if (!existsSync(folder)) return undefined;
  for (const name of copyNames(folder).toReversed()) {
    const manifest = manifestOf(path.join(folder, name));
    if (manifest.ok) return { ...manifest.value, file: path.join(folder, name) };
  }
  return undefined;
}

function manifestOf(file: string): Result<CopyManifest> {
  try {
    return ok(manifestSchema.parse(JSON.parse(readFileSync(`${file}.json`, 'utf8'))));
  } catch {
    return fail(`Expected ${file}.json beside the copy, as it was written with it; it is missing or torn.`);
  }
}

/**
 * Restores a copy into a new file, once its content is known to be that of its manifest. A file that is there is never written over:
 * the shop's own is moved away first, by hand.
 */
export async function restore(copy: string, into: string): Promise<Result<CopyManifest>> {
  if (existsSync(into)) return fail(`Expected a new file to restore into; ${into} is there. Move it away first.`);
  const manifest = manifestOf(copy);
  if (!manifest.ok) return manifest;
  const part = `${into}.part`;
  try {
    mkdirSync(path.dirname(into), { recursive: true });
    copyFileSync(copy, part);
    chmodSync(part, 0o600);
    const looked = await lookOver(part);
    if (!looked.ok) return looked;
    if (looked.value.sha256 !== manifest.value.sha256)
      return fail(`Expected the content that ${copy}.json names; the copy holds another. Take the one before it.`);
    renameSync(part, into);
    return manifest;
  } catch (error) {
    return fail(`Expected a copy that can be read; ${error instanceof Error ? error.message : String(error)}.`);
  } finally {
    for (const end of ['', '-wal', '-shm']) rmSync(`${part}${end}`, { force: true });
  }
}

/** SQLite's own check, then all rows of all tables as one hash. */
async function lookOver(file: string): Promise<Result<{ sha256: string; rows: number }>> {
  return withClient(`file:${file}`, async (client) => {
    const check = await client.execute('PRAGMA integrity_check');
    const said = String(check.rows[0]?.[0]);
    if (said !== 'ok') return fail(`Expected a sound copy; ${file}: ${said}.`);
    return ok(await contentHash(client));
  });
}

/** So many rows are read at a time. */
const PAGE = 500;

/** Canonical dump: tables and columns by name, rows by rowid, values as JSON with bytes in hex; SHA-256 over all of it. */
export async function contentHash(client: Client): Promise<{ sha256: string; rows: number }> {
  const hash = createHash('sha256');
  const tables = await client.execute(
    "select name from sqlite_master where type = 'table' and name not like 'sqlite_%' order by name",
  );
  let rows = 0;
  for (const { name } of tables.rows) {
    const table = String(name).replaceAll('"', '""');
    hash.update(`${table}\n`);
    for (let after = -1, got = PAGE; got === PAGE;) {
      const page = await client.execute({
        sql: `select rowid as "row id", * from "${table}" where rowid > ? order by rowid limit ${PAGE}`,
        args: [after],
      });
      got = page.rows.length;
      rows += got;
      const columns = page.columns.slice(1).map((column, i) => ({ column, at: i + 1 }));
      columns.sort((a, b) => (a.column < b.column ? -1 : 1));
      for (const row of page.rows) {
        after = Number(row[0]);
        hash.update(`${JSON.stringify(columns.map(({ column, at }) => [column, plain(row[at])]))}\n`);
      }
    }
  }
  return { sha256: hash.digest('hex'), rows };
}

const plain = (value: unknown): unknown =>
  value instanceof ArrayBuffer ? Buffer.from(value).toString('hex') : typeof value === 'bigint' ? String(value) : value;

/** How long a copy waits for another program inside the database, ms. */
const BUSY_MS = 5000;

async function withClient<T>(url: string, use: (client: Client) => Promise<T>): Promise<T> {
  const client = createClient({ url, timeout: BUSY_MS } as Parameters<typeof createClient>[0]);
  try {
    return await use(client);
  } finally {
    client.close();
  }
}
