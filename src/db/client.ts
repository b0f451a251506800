import { randomInt } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { createClient, type Client } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { FileGuard, FileProblem } from './file-guard';
import { rescue } from './rescue';
import * as schema from './schema';
import { serialWrites } from './serial-writes';

export type Database = LibSQLDatabase<typeof schema>;

/** The database cannot be opened: why, in a sentence. */
export class OpenProblem extends Error {}

const DEFAULT_FILE = path.resolve(/* turbopackIgnore: true */ process.cwd(), 'data/unisolda.db');
const MIGRATIONS = path.resolve(/* turbopackIgnore: true */ process.cwd(), 'drizzle');
/** How long a write waits for another program inside the database, ms: all of this program waits with it, so others try again. */
const BUSY_MS = 100;

export const databaseUrl = (): string => process.env.DATABASE_URL ?? `file:${DEFAULT_FILE}`;

const fileOf = (url: string): string | undefined => (/^file:(?!:memory:)/.test(url) ? url.slice(5) : undefined);

export interface OpenOptions {
  /** Begin an empty shop where there is no file. Without it a missing file is a problem: the shop's may lie elsewhere. */
  readonly begin?: boolean;
}

/**
 * Opens a database and brings it to the newest schema.
 * @throws OpenProblem where there is no file, where it is no database, damaged, or written by a newer version.
 */
export async function openDatabase(url = databaseUrl(), { begin = false }: OpenOptions = {}): Promise<Database> {
  const file = fileOf(url);
  if (file) requireFile(file, begin);
  const client = connect(url);
  try {
    await prepare(client, file);
    return drizzle(file ? await guarded(client, file) : client, { schema });
  } catch (error) {
    client.close();
    throw error instanceof OpenProblem ? error : unreadable(url, error);
  }
}

async function prepare(client: Client, file: string | undefined): Promise<void> {
  await requireSound(client, file);
  await requireKnownSchema(client);
  await client.execute('PRAGMA journal_mode=WAL');
  await client.execute('PRAGMA foreign_keys=ON');
  if (file) await copyBeforeMigration(client, file);
  await migrate(drizzle(client, { schema }), { migrationsFolder: MIGRATIONS });
}

const unreadable = (url: string, error: unknown): OpenProblem =>
  new OpenProblem(
    `Expected a database at ${url}; it cannot be opened: ${error instanceof Error ? error.message : String(error)}. Restore the last copy.`,
  );

function requireFile(file: string, begin: boolean): void {
  if (existsSync(file) && statSync(file).size > 0) return;
  if (!begin)
    throw new OpenProblem(
      `Expected the shop's database at ${file}; there is none. If it lies elsewhere, say where with DATABASE_URL=file:… ; "npm run shop:new" begins an empty shop here.`,
    );
  mkdirSync(path.dirname(file), { recursive: true });
}

function connect(url: string): Client {
  try {
    return createClient({ url, timeout: BUSY_MS } as Parameters<typeof createClient>[0]);
  } catch (error) {
    throw unreadable(url, error);
  }
}

/** A database that a newer version has written to holds what this one does not understand. */
async function requireKnownSchema(client: Client): Promise<void> {
  const newest = await newestMigration(client);
  const ours = newestKnown();
  if (newest !== undefined && newest > ours)
    throw new OpenProblem(
      `Expected a database of this version or an older one; this one was written by a newer version (schema of ${new Date(newest).toISOString().slice(0, 10)}, this one knows ${new Date(ours).toISOString().slice(0, 10)}). Nothing was changed.`,
    );
}

/** When the newest migration that a database has seen was written, ms; undefined where it has seen none. */
async function newestMigration(client: Client): Promise<number | undefined> {
  const known = await client.execute("select name from sqlite_master where name = '__drizzle_migrations'");
  if (known.rows.length === 0) return undefined;
  const [row] = (await client.execute('select max(created_at) as newest from __drizzle_migrations')).rows;
  return row.newest === null ? undefined : Number(row.newest);
}

/** When the newest migration of this version was written, ms. */
function newestKnown(): number {
  const journal = JSON.parse(readFileSync(path.join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  return Math.max(...journal.entries.map((e) => e.when));
}

/** The way back from a migration is the file as it was: a copy beside it, named after the schema that it has. */
async function copyBeforeMigration(client: Client, file: string): Promise<void> {
  const newest = await newestMigration(client);
  if (newest === undefined || newest >= newestKnown()) return;
  const copy = `${file}.before-${newest}.db`;
  if (existsSync(copy)) return;
  await client.execute({ sql: 'VACUUM INTO ?', args: [copy] });
  chmodSync(copy, 0o600);
}

async function requireSound(client: Client, file: string | undefined): Promise<void> {
  const [row] = (await client.execute('PRAGMA quick_check(1)')).rows;
  const found = String(Object.values(row)[0]);
  if (found !== 'ok')
    throw new OpenProblem(
      `Expected a sound database at ${file ?? 'the address'}; its check says: ${found}. Restore the last copy.`,
    );
}

/** The client that stops all writes, and saves what it still holds beside the file, once the file is another one. */
async function guarded(client: Client, file: string): Promise<Client> {
  await numberShop(client);
  const guard = new FileGuard(file);
  let broken: FileProblem | undefined;
  const rescueFrom = connect(`file:${file}`);
  // It opens the file and its log at its first read, while they are there.
  await rescueFrom.execute('select count(*) from sqlite_master');
  return serialWrites(client, async () => {
    if (broken) throw broken;
    try {
      guard.check();
    } catch (error) {
      if (!(error instanceof FileProblem)) throw error;
      const saved = await rescue(rescueFrom, file);
      broken = new FileProblem(
        `${error.message} ${saved} Nothing more is kept until the bench is started again.`,
        error.kind,
      );
      throw broken;
    }
  });
}

/** Each shop's file has a number of its own in its header, by which it is known again. */
async function numberShop(client: Client): Promise<void> {
  const [row] = (await client.execute('PRAGMA user_version')).rows;
  if (Number(row.user_version) === 0) await client.execute(`PRAGMA user_version=${randomInt(1, 2 ** 31)}`);
  await client.execute('PRAGMA wal_checkpoint(TRUNCATE)');
}

const shared = globalThis as { unisoldaDatabase?: Promise<Database> };

/** The application's one database, opened and migrated on first use. */
export function database(): Promise<Database> {
  shared.unisoldaDatabase ??= openDatabase(undefined, { begin: process.env.UNISOLDA_NEW_SHOP === '1' }).catch(
    (error: unknown) => {
      shared.unisoldaDatabase = undefined;
      throw error;
    },
  );
  return shared.unisoldaDatabase;
}
