import { and, asc, desc, eq, inArray, max, sql } from 'drizzle-orm';
import {
  custodySeal,
  eventFromText,
  originSchema,
  toStored,
  type DecidedEvent,
  type EventBody,
  type JobEvent,
  type Origin,
} from '../core/job';
import { keepLedger, wasClosed } from './keep-ledger';
import { keepSummary } from './keep-summary';
import { readText } from './readable';
import { boards, jobEvents, jobs } from './schema';
import { sealedJobRow } from './seals';
import type { Session } from './session';

export interface JobRow {
  readonly number: number;
  readonly boardId: string;
  /** The revision of the board's file that the job's record speaks of. */
  readonly boardRevision: number;
  /** A job to learn on: nothing of it counts anywhere else. */
  readonly training: boolean;
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
const toEvent = ({ seq, at, bench, actor, replaces, origin, body }: typeof jobEvents.$inferSelect): JobEvent =>
  eventFromText(
    { seq, at, bench, actor, ...(replaces !== null && { replaces }), ...(origin !== null && originOf(origin)) },
    body,
  );

function originOf(json: string): { origin?: Origin } {
  const read = readText(() => originSchema.parse(JSON.parse(json)));
  return read.ok ? { origin: read.value } : {};
}

/** Opens a job on the newest revision of a board's file. */
export async function openJob(
  db: Session,
  boardId: string,
  at: string,
  number?: number,
  training = false,
): Promise<number> {
  const [board] = await db.select({ revision: boards.revision }).from(boards).where(eq(boards.id, boardId));
  const [row] = await db
    .insert(jobs)
    .values({ boardId, boardRevision: board?.revision, openedAt: at, number, training })
    .returning({ number: jobs.number });
  return row.number;
}

export async function listJobs(db: Session): Promise<JobRow[]> {
  return db.select().from(jobs).orderBy(desc(jobs.number));
}

/** Numbers of the jobs that are on one revision of a board's file. */
export async function jobsOnFile(db: Session, boardId: string, boardRevision: number): Promise<number[]> {
  const rows = await db
    .select({ number: jobs.number })
    .from(jobs)
    .where(and(eq(jobs.boardId, boardId), eq(jobs.boardRevision, boardRevision)));
  return rows.map((r) => r.number);
}

export async function findJob(db: Session, number: number): Promise<JobRow | undefined> {
  const [row] = await db.select().from(jobs).where(eq(jobs.number, number));
  return row;
}

/** Puts a job on another revision of its board's file, or on another board's. */
export async function moveJob(
  db: Session,
  number: number,
  to: { readonly boardId?: string; readonly boardRevision: number },
): Promise<void> {
  await db.update(jobs).set(to).where(eq(jobs.number, number));
}

/** Number of a job's newest event, 0 before any; undefined where there is no such job. */
export async function newestEventOf(db: Session, number: number): Promise<number | undefined> {
  const [job] = await db
    .select({ newest: max(jobEvents.seq) })
    .from(jobs)
    .leftJoin(jobEvents, eq(jobEvents.jobNumber, jobs.number))
    .where(eq(jobs.number, number))
    .groupBy(jobs.number);
  return job && (job.newest ?? 0);
}

export async function jobEventsOf(db: Session, number: number): Promise<JobEvent[]> {
  const rows = await db.select().from(jobEvents).where(eq(jobEvents.jobNumber, number)).orderBy(asc(jobEvents.seq));
  return rows.map(toEvent);
}

const isSealed = ({ kind }: EventBody): boolean => kind === 'image' || kind === 'imageWritten';

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
  for (const [i, { body, replaces, origin }] of decided.entries()) {
    const sealed = isSealed(body) ? { ...body, after: custodySeal(log) } : body;
    const seq = log.reduce((newest, e) => Math.max(newest, e.seq), 0) + 1;
    const key = i === 0 ? meta.key : `${meta.key} ${i + 1}`;
    const { at, bench, actor } = meta;
    const entry = await sealedJobRow(tx, {
      ...{ at, bench, actor, key, seq },
      jobNumber: number,
      replaces: replaces ?? null,
      origin: origin ? JSON.stringify(origin) : null,
      body: JSON.stringify(toStored(sealed)),
    });
    const [row] = await tx.insert(jobEvents).values(entry).returning();
    const event = toEvent(row);
    log.push(event);
    appended.push(event);
  }
  await keepSummary(tx, number, log);
  if (wasClosed(log)) await keepLedger(tx, number, log);
  return appended;
}

/** Appends one event as it is, for loading what was decided elsewhere. The same key delivered twice is stored once. */
export async function appendEvent(
  tx: Session,
  number: number,
  entry: DecidedEvent,
  meta: EntryMeta,
): Promise<JobEvent> {
  const known = await eventByKey(tx, meta.key);
  if (known) return known;
  const [event] = await appendEvents(tx, number, [entry], await jobEventsOf(tx, number), meta);
  return event;
}

/** The type of an event, read by the database: rows from before events had versions name it `kind`. */
const typeField = sql<
  string | null
>`iif(json_valid(${jobEvents.body}), coalesce(json_extract(${jobEvents.body}, '$.type'), json_extract(${jobEvents.body}, '$.kind')), null)`;

/** What changed the board in real jobs that were closed, by job: enough to fold what was replaced. */
export async function workOfClosedJobs(db: Session): Promise<{ boardId: string; events: JobEvent[] }[]> {
  const closed = db.select({ number: jobEvents.jobNumber }).from(jobEvents).where(eq(typeField, 'close'));
  const rows = await db
    .select({ event: jobEvents, boardId: jobs.boardId })
    .from(jobEvents)
    .innerJoin(jobs, eq(jobs.number, jobEvents.jobNumber))
    .where(
      and(
        inArray(typeField, ['partOff', 'partOn', 'imageWritten', 'mended', 'close', 'reopen', 'undo']),
        inArray(jobEvents.jobNumber, closed),
        eq(jobs.training, false),
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

/** The events of many jobs, by job. */
export async function eventsOfJobs(db: Session, numbers: readonly number[]): Promise<Map<number, JobEvent[]>> {
  const events = new Map(numbers.map((number) => [number, [] as JobEvent[]]));
  for (let from = 0; from < numbers.length; from += BATCH) {
    const rows = await db
      .select()
      .from(jobEvents)
      .where(inArray(jobEvents.jobNumber, numbers.slice(from, from + BATCH)))
      .orderBy(asc(jobEvents.jobNumber), asc(jobEvents.seq));
    for (const row of rows) events.get(row.jobNumber)!.push(toEvent(row));
  }
  return events;
}
