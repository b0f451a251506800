import { eq } from 'drizzle-orm';
import type { JobEvent } from '../core/job';
import { ledgerOf } from '../core/ledger';
import { findBoard } from './boards';
import { jobs, ledgerJobs, ledgerReadings } from './schema';
import type { Session } from './session';

/** Raised when `ledgerOf` gives other entries than before: what is kept of an older form is computed anew. */
export const LEDGER_FORM = 2;
/** Rows per statement: SQLite takes a limited number of values at once. */
const BATCH = 500;

/** Writes the closings of a job anew from its events. Jobs to learn on are in no record. */
export async function keepLedger(db: Session, number: number, events: readonly JobEvent[]): Promise<void> {
  const [job] = await db.select().from(jobs).where(eq(jobs.number, number));
  if (job.training) return;
  await db.delete(ledgerReadings).where(eq(ledgerReadings.jobNumber, number));
  await db.delete(ledgerJobs).where(eq(ledgerJobs.jobNumber, number));
  const board = await findBoard(db, job.boardId, job.boardRevision);
  if (!board) return;
  const version = events.reduce((newest, e) => Math.max(newest, e.seq), 0);
  for (const { readings, causes, ...entry } of ledgerOf(board, events)) {
    const cause = causes.join(', ');
    const key = { jobNumber: number, closing: entry.closing, boardId: job.boardId, cause };
    await db.insert(ledgerJobs).values({ ...entry, ...key, version, form: LEDGER_FORM });
    const rows = readings.map(({ value, ...r }) => ({
      ...{ ...key, ...r },
      value: value !== undefined && Number.isFinite(value) ? value : null,
      isOpen: value === Infinity,
    }));
    for (let from = 0; from < rows.length; from += BATCH)
      await db.insert(ledgerReadings).values(rows.slice(from, from + BATCH));
  }
}

/** True for a log that has entries in the ledger. */
export const wasClosed = (events: readonly JobEvent[]): boolean => events.some((e) => e.body.kind === 'close');
