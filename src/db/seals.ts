import { asc, desc, eq, gt } from 'drizzle-orm';
import { ChainCheck, sealOf, type ChainFound, type ChainedEntry } from '../core/stored';
import { sealedHash } from './erase';
import { jobEvents, stockEvents } from './schema';
import type { Session } from './session';

type JobRow = typeof jobEvents.$inferSelect;
type StockRow = typeof stockEvents.$inferSelect;

const jobColumns = (r: Omit<JobRow, 'id' | 'seal'>): ChainedEntry['columns'] => [
  ...[r.jobNumber, r.seq, r.key, r.at, r.bench, r.actor, r.replaces, r.origin],
  sealedHash(r.body),
];
const stockColumns = (r: Omit<StockRow, 'seq' | 'seal'>): ChainedEntry['columns'] => [
  ...[r.key, r.at, r.bench, r.actor],
  sealedHash(r.body),
];

/** The job entry with its seal. Call it inside the transaction that stores it. */
export async function sealedJobRow<R extends Omit<JobRow, 'id' | 'seal'>>(
  tx: Session,
  row: R,
): Promise<R & { seal: string }> {
  const [last] = await tx.select({ seal: jobEvents.seal }).from(jobEvents).orderBy(desc(jobEvents.id)).limit(1);
  return { ...row, seal: sealOf(last?.seal ?? null, jobColumns(row)) };
}

/** The stock entries with their seals, each after the one before it. */
export async function sealedStockRows<R extends Omit<StockRow, 'seq' | 'seal'>>(
  tx: Session,
  rows: readonly R[],
): Promise<(R & { seal: string })[]> {
  const [last] = await tx.select({ seal: stockEvents.seal }).from(stockEvents).orderBy(desc(stockEvents.seq)).limit(1);
  let before = last?.seal ?? null;
  return rows.map((row) => {
    before = sealOf(before, stockColumns(row));
    return { ...row, seal: before };
  });
}

/** The seal of a job's newest entry; undefined where it has none. */
export async function sealOfJob(db: Session, number: number): Promise<string | undefined> {
  const [last] = await db
    .select({ seal: jobEvents.seal })
    .from(jobEvents)
    .where(eq(jobEvents.jobNumber, number))
    .orderBy(desc(jobEvents.seq))
    .limit(1);
  return last?.seal ?? undefined;
}

/** Rows of a log that are looked at at once. */
const BATCH = 2000;

/**
 * Checks both logs of a shop from their beginning.
 * @param writtenDown a seal of the job log that a report shows: it has to be in the chain.
 */
export async function checkSeals(
  db: Session,
  writtenDown?: string,
): Promise<{ readonly jobs: ChainFound; readonly stock: ChainFound }> {
  const jobs = new ChainCheck(writtenDown);
  for (let from = -1; ;) {
    const rows = await db
      .select()
      .from(jobEvents)
      .where(gt(jobEvents.id, from))
      .orderBy(asc(jobEvents.id))
      .limit(BATCH);
    for (const r of rows) jobs.take({ id: r.id, columns: jobColumns(r), seal: r.seal });
    if (rows.length < BATCH) break;
    from = rows[rows.length - 1].id;
  }
  const stock = new ChainCheck();
  for (let from = -1; ;) {
    const rows = await db
      .select()
      .from(stockEvents)
      .where(gt(stockEvents.seq, from))
      .orderBy(asc(stockEvents.seq))
      .limit(BATCH);
    for (const r of rows) stock.take({ id: r.seq, columns: stockColumns(r), seal: r.seal });
    if (rows.length < BATCH) break;
    from = rows[rows.length - 1].seq;
  }
  return { jobs: jobs.found(), stock: stock.found() };
}
