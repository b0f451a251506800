import type { Client, InStatement, Transaction, TransactionMode } from '@libsql/client';
import { Lock } from './lock';

const isRead = (statement: InStatement): boolean =>
  /^\s*(select|explain|pragma)/i.test(typeof statement === 'string' ? statement : statement.sql);

/**
 * The client with one writer at a time: SQLite allows one, and the client's pooled connections would answer "busy"
 * to the others. Reads stay parallel. A transaction holds the lock until it is committed, rolled back or closed.
 * @param check is asked before each write and after each commit; what it throws stops the write.
 */
export function serialWrites(client: Client, check: () => Promise<void>): Client {
  const lock = new Lock();
  const locked = async <T>(work: () => Promise<T>): Promise<T> => {
    const release = await lock.acquire();
    try {
      await check();
      const done = await work();
      await check();
      return done;
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
      await check();
      return releasing(await transaction(mode), release, check);
    } catch (error) {
      // A "begin" that met another writer stays unfinished on its connection, with the sight of the file that it had then: every
      // later one on it would be refused. Measured: until the statement is collected, tens of seconds. Fresh ones are not.
      if (isBusy(error)) await client.reconnect();
      release();
      throw error;
    }
  }) as Client['transaction'];
  return client;
}

const isBusy = (error: unknown): boolean => String((error as { code?: unknown }).code).startsWith('SQLITE_BUSY');

function releasing(tx: Transaction, release: () => void, check: () => Promise<void>): Transaction {
  const { commit, rollback, close } = tx;
  tx.commit = () => commit.call(tx).then(check).finally(release);
  tx.rollback = () => rollback.call(tx).finally(release);
  tx.close = () => {
    close.call(tx);
    release();
  };
  return tx;
}
