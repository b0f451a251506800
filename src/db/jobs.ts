import { and, asc, desc, eq, inArray, max, sql } from 'drizzle-orm';
import { custodySeal, eventFromText, toStored, type DecidedEvent, type EventBody, type JobEvent } from '../core/job';
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

/** A row that cannot be read marks itself; the rest of its job is still there. */
const toEvent = ({ seq, at, bench, actor, replaces, body }: typeof jobEvents.$inferSelect): JobEvent =>
  eventFromText({ seq, at, bench, actor, ...(replaces !== null && { replaces }) }, body);

export async function openJob(db: Database, boardId: string, at: string, number?: number): Promise<number> {
  const [row] = await db.insert(jobs).values({ boardId, openedAt: at, number }).returning({ number: jobs.number });
  return row.number;
}

export async function listJobs(db: Database): Promise<JobRow[]> {
  return db.select().from(jobs).orderBy(desc(jobs.number));
}

export async function findJob(db: Pick<Database, 'select'>, number: number): Promise<JobRow | undefined> {
  const [row] = await db.select().from(jobs).where(eq(jobs.number, number));
  return row;
}

export const jobEventsOf = (db: Database, number: number): Promise<JobEvent[]> => eventsOf(db, number);

export async function eventsOf(db: Pick<Database, 'select'>, number: number): Promise<JobEvent[]> {
  const rows = await db.select().from(jobEvents).where(eq(jobEvents.jobNumber, number)).orderBy(asc(jobEvents.seq));
  return rows.map(toEvent);
}

const isSealed = ({ kind }: EventBody): boolean => kind === 'image' || kind === 'imageWritten';

/** What a transaction and the database itself have in common. */
export type Session = Pick<Database, 'select' | 'insert'>;

/** An event that was entered under this key before. */
export async function eventByKey(db: Session, key: string): Promise<JobEvent | undefined> {
  const [known] = await db.select().from(jobEvents).where(eq(jobEvents.key, key));
  return known && toEvent(known);
}

/**
 * Appends decided events inside the transaction of whoever decided them, the first under the key, the others under the
 * key with their place. Images are sealed with what is stored before them, here and nowhere else.
 */
export async function appendEvents(
  tx: Session,
  number: number,
  decided: readonly DecidedEvent[],
  before: readonly JobEvent[],
  meta: EntryMeta,
): Promise<JobEvent[]> {
  const log = [...before];
  const appended: JobEvent[] = [];
  for (const [i, { body, replaces }] of decided.entries()) {
    const sealed = isSealed(body) ? { ...body, after: custodySeal(log) } : body;
    const seq = log.reduce((newest, e) => Math.max(newest, e.seq), 0) + 1;
    const key = i === 0 ? meta.key : `${meta.key} ${i + 1}`;
    const [row] = await tx
      .insert(jobEvents)
      .values({
        ...meta,
        key,
        jobNumber: number,
        seq,
        replaces: replaces ?? null,
        body: JSON.stringify(toStored(sealed)),
      })
      .returning();
    const event = toEvent(row);
    log.push(event);
    appended.push(event);
  }
  return appended;
}

/** Appends one event as it is, for loading what was decided elsewhere. The same key delivered twice is stored once. */
export async function appendEvent(
  db: Database,
  number: number,
  entry: DecidedEvent,
  meta: EntryMeta,
): Promise<JobEvent> {
  return db.transaction(async (tx) => {
    const known = await eventByKey(tx, meta.key);
    if (known) return known;
    const [event] = await appendEvents(tx, number, [entry], await eventsOf(tx, number), meta);
    return event;
  });
}

/**
 * A field of an event's data, read by the database; rows from before events had versions hold it beside their kind. A row
 * that is no JSON has none.
 */
const field = <T>(name: string) =>
  sql<T>`iif(json_valid(${jobEvents.body}), coalesce(json_extract(${jobEvents.body}, ${`$.data.${name}`}), json_extract(${jobEvents.body}, ${`$.${name}`})), null)`;

/** The type of an event, read by the database. */
const typeField = sql<
  string | null
>`iif(json_valid(${jobEvents.body}), coalesce(json_extract(${jobEvents.body}, '$.type'), json_extract(${jobEvents.body}, '$.kind')), null)`;

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
  const closed = db.select({ number: jobEvents.jobNumber }).from(jobEvents).where(eq(typeField, 'close'));
  const rows = await db
    .select({ event: jobEvents, boardId: jobs.boardId })
    .from(jobEvents)
    .innerJoin(jobs, eq(jobs.number, jobEvents.jobNumber))
    .where(
      and(
        inArray(typeField, ['partOff', 'partOn', 'imageWritten', 'mended', 'close', 'reopen', 'undo']),
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
      .where(and(eq(typeField, 'decision'), eq(field('action'), 'replace'))),
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
        kind: typeField,
        symptom: field<string | null>('symptom'),
        pack: field<string | null>('pack'),
        outcome: field<string | null>('outcome'),
        target: field<number | null>('seq'),
      })
      .from(jobEvents)
      .where(sql`${typeField} in ('story', 'close', 'reopen', 'undo')`)
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
  const rows = await db.selectDistinct({ number: jobEvents.jobNumber }).from(jobEvents).where(eq(typeField, 'soak'));
  return rows.map((r) => r.number);
}
