import { and, asc, desc, eq, inArray, max, sql } from 'drizzle-orm';
import { custodySeal, eventBodySchema, type EventBody, type JobEvent } from '../core/job';
import type { Database } from './client';
import { jobEvents, jobs } from './schema';

export interface JobRow {
  readonly number: number;
  readonly boardId: string;
  readonly openedAt: string;
}

/** Who enters, where and when, and a key that makes a repeated delivery harmless. */
export interface EntryMeta {
  readonly key: string;
  readonly at: string;
  readonly bench: string;
  readonly actor: string;
}

const toEvent = (row: typeof jobEvents.$inferSelect): JobEvent => ({
  seq: row.seq,
  at: row.at,
  bench: row.bench,
  actor: row.actor,
  replaces: row.replaces ?? undefined,
  body: eventBodySchema.parse(JSON.parse(row.body)),
});

export async function openJob(db: Database, boardId: string, at: string, number?: number): Promise<number> {
  const [row] = await db.insert(jobs).values({ boardId, openedAt: at, number }).returning({ number: jobs.number });
  return row.number;
}

export async function listJobs(db: Database): Promise<JobRow[]> {
  return db.select().from(jobs).orderBy(desc(jobs.number));
}

export async function findJob(db: Database, number: number): Promise<JobRow | undefined> {
  const [row] = await db.select().from(jobs).where(eq(jobs.number, number));
  return row;
}

export const jobEventsOf = (db: Database, number: number): Promise<JobEvent[]> => eventsOf(db, number);

async function eventsOf(db: Pick<Database, 'select'>, number: number): Promise<JobEvent[]> {
  const rows = await db.select().from(jobEvents).where(eq(jobEvents.jobNumber, number)).orderBy(asc(jobEvents.seq));
  return rows.map(toEvent);
}

const isSealed = ({ kind }: EventBody): boolean => kind === 'image' || kind === 'imageWritten';

/**
 * Appends one event and answers only when it is on disk. Two benches that enter at once get two numbers in a row; the
 * same key delivered twice is stored once. Images are sealed with what is stored before them, here and nowhere else: of two
 * that come in the same moment the second is sealed with the first.
 */
export async function appendEvent(
  db: Database,
  number: number,
  entry: { body: EventBody; replaces?: number },
  meta: EntryMeta,
): Promise<JobEvent> {
  return db.transaction(async (tx) => {
    const [known] = await tx.select().from(jobEvents).where(eq(jobEvents.key, meta.key));
    if (known) return toEvent(known);
    const [last] = await tx
      .select({ seq: max(jobEvents.seq) })
      .from(jobEvents)
      .where(eq(jobEvents.jobNumber, number));
    const values = { jobNumber: number, seq: (last.seq ?? 0) + 1, ...meta, replaces: entry.replaces ?? null };
    const body = isSealed(entry.body) ? { ...entry.body, after: custodySeal(await eventsOf(tx, number)) } : entry.body;
    const [row] = await tx
      .insert(jobEvents)
      .values({ ...values, body: JSON.stringify(body) })
      .returning();
    return toEvent(row);
  });
}

/** A field of an event's body, read by the database. */
const field = <T>(name: string) => sql<T>`json_extract(${jobEvents.body}, ${`$.${name}`})`;

export interface JobSummary extends JobRow {
  readonly symptom: string;
  /** The pack came in swollen, whether or not it is out by now. */
  readonly swollen: boolean;
  /** The outcome where the last closing still counts, else undefined. */
  readonly outcome?: string;
  readonly lastAt: string;
}

/** What changed the board in jobs that were closed, by job: enough to fold what was replaced. */
export async function workOfClosedJobs(db: Database): Promise<{ boardId: string; events: JobEvent[] }[]> {
  const closed = db
    .select({ number: jobEvents.jobNumber })
    .from(jobEvents)
    .where(eq(field('kind'), 'close'));
  const rows = await db
    .select({ event: jobEvents, boardId: jobs.boardId })
    .from(jobEvents)
    .innerJoin(jobs, eq(jobs.number, jobEvents.jobNumber))
    .where(
      and(
        inArray(field<string>('kind'), ['partOff', 'partOn', 'imageWritten', 'mended', 'close', 'reopen', 'undo']),
        inArray(jobEvents.jobNumber, closed),
      ),
    )
    .orderBy(asc(jobEvents.jobNumber), asc(jobEvents.seq));
  const byJob = new Map<number, { boardId: string; events: JobEvent[] }>();
  for (const { event, boardId } of rows) {
    const job = byJob.get(event.jobNumber) ?? { boardId, events: [] };
    job.events.push(toEvent(event));
    byJob.set(event.jobNumber, job);
  }
  return [...byJob.values()];
}

/** Rows per statement: SQLite takes a limited number of values at once. */
const BATCH = 500;

/** Open jobs in which a part was decided to be replaced, with all their events, by number. */
export async function openJobsThatReplace(db: Database): Promise<{ row: JobRow; events: JobEvent[] }[]> {
  const [summaries, decided] = await Promise.all([
    jobSummaries(db),
    db
      .selectDistinct({ number: jobEvents.jobNumber })
      .from(jobEvents)
      .where(and(eq(field('kind'), 'decision'), eq(field('action'), 'replace'))),
  ]);
  const wanted = new Set(decided.map((d) => d.number));
  const open = summaries.filter((s) => s.outcome === undefined && wanted.has(s.number));
  const events = new Map(open.map((o) => [o.number, [] as JobEvent[]]));
  for (let from = 0; from < open.length; from += BATCH) {
    const numbers = open.slice(from, from + BATCH).map((o) => o.number);
    const rows = await db
      .select()
      .from(jobEvents)
      .where(inArray(jobEvents.jobNumber, numbers))
      .orderBy(asc(jobEvents.jobNumber), asc(jobEvents.seq));
    for (const row of rows) events.get(row.jobNumber)!.push(toEvent(row));
  }
  return open.map((row) => ({ row, events: events.get(row.number)! })).sort((a, b) => a.row.number - b.row.number);
}

/** All jobs with their symptom, last entry and outcome, straight from the events: three indexed reads for any number. */
export async function jobSummaries(db: Database): Promise<JobSummary[]> {
  const [rows, last, marked] = await Promise.all([
    listJobs(db),
    db
      .select({ number: jobEvents.jobNumber, at: max(jobEvents.at) })
      .from(jobEvents)
      .groupBy(jobEvents.jobNumber),
    db
      .select({
        number: jobEvents.jobNumber,
        seq: jobEvents.seq,
        kind: field<string>('kind'),
        symptom: field<string | null>('symptom'),
        pack: field<string | null>('pack'),
        outcome: field<string | null>('outcome'),
        target: field<number | null>('seq'),
      })
      .from(jobEvents)
      .where(sql`${field('kind')} in ('story', 'close', 'reopen', 'undo')`)
      .orderBy(asc(jobEvents.seq)),
  ]);
  const lastAt = new Map(last.map((l) => [l.number, l.at]));
  const undone = new Set(marked.flatMap((e) => (e.kind === 'undo' ? [`${e.number} ${e.target}`] : [])));
  const symptom = new Map<number, string>();
  const pack = new Map<number, string>();
  const outcome = new Map<number, string>();
  for (const e of marked.filter(({ number, seq }) => !undone.has(`${number} ${seq}`))) {
    if (e.kind === 'story' || e.kind === 'reopen') symptom.set(e.number, e.symptom ?? '');
    if (e.kind === 'story') pack.set(e.number, e.pack ?? '');
    if (e.kind === 'close') outcome.set(e.number, e.outcome ?? '');
    if (e.kind === 'reopen') outcome.delete(e.number);
  }
  return rows.map((r) => ({
    ...r,
    symptom: symptom.get(r.number) ?? '',
    swollen: pack.get(r.number) === 'swollen',
    outcome: outcome.get(r.number),
    lastAt: lastAt.get(r.number) ?? r.openedAt,
  }));
}

/** Numbers of the jobs in which a soak was ever begun. */
export async function jobsWithSoaks(db: Database): Promise<number[]> {
  const rows = await db
    .selectDistinct({ number: jobEvents.jobNumber })
    .from(jobEvents)
    .where(eq(field<string>('kind'), 'soak'));
  return rows.map((r) => r.number);
}
