import { and, asc, count, desc, eq, exists, gte, lt, ne, notExists, or, sql } from 'drizzle-orm';
import type { LedgerLine, PointReading } from '../core/ledger';
import { eventsOfJobs } from './jobs';
import { keepLedger, LEDGER_FORM } from './keep-ledger';
import { jobs, jobSummaries, ledgerJobs, ledgerReadings } from './schema';
import type { Session } from './session';

/** Jobs that are brought up to date with one read. */
const BATCH = 500;

/** Brings what is missing or of an older form up to date: databases from before the ledger, jobs written by another program. */
export async function refreshLedger(db: Session): Promise<void> {
  const kept = db.select().from(ledgerJobs).where(eq(ledgerJobs.jobNumber, jobs.number));
  const old = db
    .select()
    .from(ledgerJobs)
    .where(
      and(
        eq(ledgerJobs.jobNumber, jobs.number),
        or(ne(ledgerJobs.form, LEDGER_FORM), ne(ledgerJobs.version, jobSummaries.version)),
      ),
    );
  const stale = await db
    .select({ number: jobs.number })
    .from(jobs)
    .innerJoin(jobSummaries, eq(jobSummaries.jobNumber, jobs.number))
    .where(
      and(eq(jobs.training, false), or(exists(old), and(sql`${jobSummaries.outcome} is not null`, notExists(kept)))),
    );
  for (let from = 0; from < stale.length; from += BATCH) {
    const numbers = stale.slice(from, from + BATCH).map((s) => s.number);
    for (const [number, log] of await eventsOfJobs(db, numbers)) await keepLedger(db, number, log);
  }
}

/** What the records are asked about. */
export interface LedgerFilter {
  readonly boardId?: string;
  /** ISO 8601 days: from the first on, before the second. */
  readonly from?: string;
  readonly before?: string;
}

const within = ({ boardId, from, before }: LedgerFilter) =>
  and(
    boardId === undefined ? undefined : eq(ledgerJobs.boardId, boardId),
    from === undefined ? undefined : gte(ledgerJobs.closedAt, from),
    before === undefined ? undefined : lt(ledgerJobs.closedAt, before),
  );

/** The closings that the records are about, in the order in which they were closed. */
export async function ledgerLines(db: Session, filter: LedgerFilter): Promise<LedgerLine[]> {
  const rows = await db.select().from(ledgerJobs).where(within(filter)).orderBy(asc(ledgerJobs.closedAt));
  return rows.map((r) => ({
    ...{ board: r.boardId, month: r.closedAt.slice(0, 7), outcome: r.outcome, isComeback: r.isComeback },
    ...{ cause: r.cause || 'nothing mended', person: r.person, minutes: r.minutes, closedAt: r.closedAt },
    ...{ daysGood: r.daysGood ?? undefined, source: r.source ?? undefined, price: r.price ?? undefined },
    ...{ quoted: r.quoted ?? undefined, successTold: r.successTold ?? undefined },
    promisedAt: r.promisedAt ?? undefined,
  }));
}

/** Points of a board that were ever read in closed jobs, the most often read first. */
export async function ledgerPoints(
  db: Session,
  boardId: string,
): Promise<{ readonly point: string; readonly name: string; readonly readings: number }[]> {
  const readings = count();
  return db
    .select({ point: ledgerReadings.point, name: sql<string>`min(${ledgerReadings.name})`, readings })
    .from(ledgerReadings)
    .where(eq(ledgerReadings.boardId, boardId))
    .groupBy(ledgerReadings.point)
    .orderBy(desc(readings), asc(ledgerReadings.point));
}

/** Every reading at a point of a board, with what its job turned out to be. */
export async function pointReadings(db: Session, boardId: string, point: string): Promise<PointReading[]> {
  const rows = await db
    .select()
    .from(ledgerReadings)
    .where(and(eq(ledgerReadings.boardId, boardId), eq(ledgerReadings.point, point)));
  return rows.map((r) => ({
    ...{ job: r.jobNumber, words: r.words, phase: r.phase, cause: r.cause },
    value: r.isOpen ? Infinity : (r.value ?? undefined),
  }));
}
