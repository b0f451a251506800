import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { createClient, type Client, type InStatement, type Transaction, type TransactionMode } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { Lock } from './lock';
import * as schema from './schema';

export type Database = LibSQLDatabase<typeof schema>;

const DEFAULT_FILE = path.resolve(/* turbopackIgnore: true */ process.cwd(), 'data/unisolda.db');

function databaseUrl(): string {
  const url = process.env.DATABASE_URL ?? `file:${DEFAULT_FILE}`;
  if (url.startsWith('file:')) mkdirSync(path.dirname(url.slice(5)), { recursive: true });
  return url;
}

const isRead = (statement: InStatement): boolean =>
  /^\s*(select|explain|pragma)/i.test(typeof statement === 'string' ? statement : statement.sql);

/**
 * The client with one writer at a time: SQLite allows one, and the client's pooled connections would answer "busy"
 * to the others. Reads stay parallel. A transaction holds the lock until it is committed, rolled back or closed.
 */
function oneWriterAtATime(client: Client): Client {
  const lock = new Lock();
  const locked = async <T>(work: () => Promise<T>): Promise<T> => {
    const release = await lock.acquire();
    try {
      return await work();
    } finally {
      release();
    }
  };
  const execute = client.execute.bind(client) as (statement: InStatement) => ReturnType<Client['execute']>;
  const batch = client.batch.bind(client);
  const transaction = client.transaction.bind(client) as (mode?: TransactionMode) => Promise<Transaction>;
  client.execute = ((statement: InStatement) =>
    isRead(statement) ? execute(statement) : locked(() => execute(statement))) as Client['execute'];
  client.batch = (...args) => locked(() => batch(...args));
  client.transaction = (async (mode?: TransactionMode) => {
    const release = await lock.acquire();
    try {
      return releasing(await transaction(mode), release);
    } catch (error) {
      release();
      throw error;
    }
  }) as Client['transaction'];
  return client;
}

function releasing(tx: Transaction, release: () => void): Transaction {
  const { commit, rollback, close } = tx;
  tx.commit = () => commit.call(tx).finally(release);
  tx.rollback = () => rollback.call(tx).finally(release);
  tx.close = () => {
    close.call(tx);
    release();
  };
  return tx;
}

/** Opens a database and brings it to the newest schema. */
export async function openDatabase(url = databaseUrl()): Promise<Database> {
  const client = oneWriterAtATime(createClient({ url, timeout: 5000 } as Parameters<typeof createClient>[0]));
  await client.execute('PRAGMA journal_mode=WAL');
  await client.execute('PRAGMA foreign_keys=ON');
  const db = drizzle(client, { schema });
  await migrate(db, { migrationsFolder: path.resolve(/* turbopackIgnore: true */ process.cwd(), 'drizzle') });
  return db;
}

const shared = globalThis as { unisoldaDatabase?: Promise<Database> };

/** The application's one database, opened and migrated on first use. */
export function database(): Promise<Database> {
  shared.unisoldaDatabase ??= openDatabase().catch((error: unknown) => {
    shared.unisoldaDatabase = undefined;
    throw error;
  });
  return shared.unisoldaDatabase;
}
