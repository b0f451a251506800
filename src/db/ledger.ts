import {
  and,
  asc,
  count,
  desc,
  eq,
  exists,
  gt,
  gte,
  inArray,
  isNotNull,
  lt,
  max,
  ne,
  notExists,
  or,
  sql,
  type SQLWrapper,
} from 'drizzle-orm';
import type { LedgerLine, PointReading } from '../core/ledger';
import { eventsOfJobs } from './jobs';
import { keepLedger, LEDGER_FORM } from './keep-ledger';
import { jobEvents, jobs, jobSummaries, ledgerJobs, ledgerReadings } from './schema';
import type { Session } from './session';

/** Jobs that are brought up to date with one read. */
const BATCH = 500;

/** How far the ledger of a database was held against its events: nothing older can be stale. */
const seen = new WeakMap<Session, number>();

/** Brings what is missing or of an older form up to date: databases from before the ledger, jobs written by another program. */
export async function refreshLedger(db: Session): Promise<void> {
  const before = seen.get(db);
  const [{ newest }] = await db.select({ newest: max(jobEvents.id) }).from(jobEvents);
  if (before !== undefined && before === newest) return;
  const kept = db.select().from(ledgerJobs).where(eq(ledgerJobs.jobNumber, jobs.number));
  const isOld = or(ne(ledgerJobs.form, LEDGER_FORM), ne(ledgerJobs.version, jobSummaries.version));
  const old = db
    .select()
    .from(ledgerJobs)
    .where(and(eq(ledgerJobs.jobNumber, jobs.number), isOld));
  const since =
    before === undefined
      ? undefined
      : inArray(
          jobs.number,
          db.selectDistinct({ number: jobEvents.jobNumber }).from(jobEvents).where(gt(jobEvents.id, before)),
        );
  const stale = await db
    .select({ number: jobs.number })
    .from(jobs)
    .innerJoin(jobSummaries, eq(jobSummaries.jobNumber, jobs.number))
    .where(
      and(since, eq(jobs.training, false), or(exists(old), and(isNotNull(jobSummaries.outcome), notExists(kept)))),
    );
  for (let from = 0; from < stale.length; from += BATCH) {
    const numbers = stale.slice(from, from + BATCH).map((s) => s.number);
    for (const [number, log] of await eventsOfJobs(db, numbers)) await keepLedger(db, number, log);
  }
  seen.set(db, newest ?? 0);
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

/** The columns of a line, in the order in which they are read. */
const LINE = {
  board: ledgerJobs.boardId,
  outcome: ledgerJobs.outcome,
  isComeback: ledgerJobs.isComeback,
  cause: ledgerJobs.cause,
  person: ledgerJobs.person,
  minutes: ledgerJobs.minutes,
  closedAt: ledgerJobs.closedAt,
  daysGood: ledgerJobs.daysGood,
  source: ledgerJobs.source,
  station: ledgerJobs.station,
  price: ledgerJobs.price,
  quoted: ledgerJobs.quoted,
  successTold: ledgerJobs.successTold,
  promisedAt: ledgerJobs.promisedAt,
};

/** All rows as one text: a tenth of what ten thousand objects take to be handed over. */
const asOneText = (columns: Readonly<Record<string, SQLWrapper>>) =>
  sql<string>`json_group_array(json_array(${sql.join(Object.values(columns), sql`, `)}))`;

/** The closings that the records are about, in the order in which they were closed. */
export async function ledgerLines(db: Session, filter: LedgerFilter): Promise<LedgerLine[]> {
  const [{ text }] = await db
    .select({ text: asOneText(LINE) })
    .from(ledgerJobs)
    .where(within(filter));
  return (JSON.parse(text) as unknown[][])
    .map((row): LedgerLine => {
      const line = Object.fromEntries(
        Object.keys(LINE).map((name, i) => [name, row[i] ?? undefined]),
      ) as unknown as LedgerLine;
      return {
        ...line,
        month: line.closedAt.slice(0, 7),
        isComeback: Boolean(line.isComeback),
        cause: line.cause || 'nothing mended',
      };
    })
    .sort((a, b) => (a.closedAt < b.closedAt ? -1 : 1));
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

const POINT = {
  job: ledgerReadings.jobNumber,
  value: ledgerReadings.value,
  isOpen: ledgerReadings.isOpen,
  words: ledgerReadings.words,
  phase: ledgerReadings.phase,
  cause: ledgerReadings.cause,
};
type PointRow = readonly [number, number | null, number, string, 'fault' | 'good', string];

/** Every reading at a point of a board, with what its job turned out to be. */
export async function pointReadings(db: Session, boardId: string, point: string): Promise<PointReading[]> {
  const [{ text }] = await db
    .select({ text: asOneText(POINT) })
    .from(ledgerReadings)
    .where(and(eq(ledgerReadings.boardId, boardId), eq(ledgerReadings.point, point)));
  return (JSON.parse(text) as PointRow[]).map(([job, value, isOpen, words, phase, cause]) => ({
    ...{ job, words, phase, cause },
    value: isOpen ? Infinity : (value ?? undefined),
  }));
}
