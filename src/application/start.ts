import { sql } from 'drizzle-orm';
import { listBoards } from '../db/boards';
import { journal } from './journal';
import { keepCopying } from './shop/copies';
import { keepErasing } from './shop/retention';
import { database, OpenProblem, type Database } from '../db/client';
import { refreshSummaries } from '../db/job-summaries';
import { work } from '../server-work/pool';

/** Requests get through between two boards. */
const BETWEEN_BOARDS_MS = 200;
/** Exit status of a start that cannot be: bad configuration (BSD sysexits.h, EX_CONFIG). */
const EX_CONFIG = 78;

/** Opens the database, or says why not and ends; brings summaries up to date, and computes the boards' tables ahead. */
export async function startBench(): Promise<void> {
  const db = await database().catch((error: unknown) => {
    if (!(error instanceof OpenProblem)) throw error;
    console.error(error.message);
    process.exit(EX_CONFIG);
  });
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => void checkpoint(db));
  await refreshSummaries(db);
  keepCopying(db);
  keepErasing(db);
  void warmBoards(db).catch((error: unknown) => journal().problem('computing tables ahead', error));
  journal().note('started');
}

/** Brings what the log holds into the file itself, so that a copy of the file alone is whole. */
async function checkpoint(db: Database): Promise<void> {
  await db.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
}

async function warmBoards(db: Database): Promise<void> {
  for (const board of await listBoards(db)) {
    await new Promise((resolve) => setTimeout(resolve, BETWEEN_BOARDS_MS));
    await work('warm', board);
  }
}
