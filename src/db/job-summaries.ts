import { and, asc, count, desc, eq, gt, inArray, isNotNull, isNull, like, max, or, sql, type SQL } from 'drizzle-orm';
import type { JobEvent, LogSummary, Soak } from '../core/job';
import { eventsOfJobs, type JobRow } from './jobs';
import { keepSummary } from './keep-summary';
import { readText } from './readable';
import { jobEvents, jobs, jobSummaries } from './schema';
import type { Session } from './session';

/** A job as lists show it. */
export interface JobSummary extends JobRow, Pick<LogSummary, 'symptom' | 'marks' | 'swollen' | 'outcome' | 'version'> {
  readonly lastAt: string;
}

/** Jobs whose summary is not of their newest event: written by another program, or before summaries were kept. */
const staleOrMissing = sql`(${jobSummaries.jobNumber} is null or ${jobSummaries.version} <> (select coalesce(max(${jobEvents.seq}), 0) from ${jobEvents} where ${jobEvents.jobNumber} = ${jobs.number}))`;

/** Jobs that are brought up to date with one read. */
const BATCH = 200;

/** How far the summaries of a database were held against its events: nothing older can be stale. */
const seen = new WeakMap<Session, { readonly event: number; readonly job: number }>();

async function newestOf(db: Session): Promise<{ event: number; job: number }> {
  const [[{ event }], [{ job }]] = await Promise.all([
    db.select({ event: max(jobEvents.id) }).from(jobEvents),
    db.select({ job: max(jobs.number) }).from(jobs),
  ]);
  return { event: event ?? 0, job: job ?? 0 };
}

/** Brings the summaries that are stale up to date. After the first time only what came since is looked at. */
export async function refreshSummaries(db: Session): Promise<void> {
  const before = seen.get(db);
  const newest = await newestOf(db);
  if (before?.event === newest.event && before.job === newest.job) return;
  const since =
    before &&
    or(
      gt(jobs.number, before.job),
      inArray(
        jobs.number,
        db.selectDistinct({ number: jobEvents.jobNumber }).from(jobEvents).where(gt(jobEvents.id, before.event)),
      ),
    );
  const stale = await db
    .select({ number: jobs.number })
    .from(jobs)
    .leftJoin(jobSummaries, eq(jobSummaries.jobNumber, jobs.number))
    .where(and(since, staleOrMissing));
  for (let from = 0; from < stale.length; from += BATCH) {
    const events = await eventsOfJobs(
      db,
      stale.slice(from, from + BATCH).map((s) => s.number),
    );
    for (const [number, log] of events) await keepSummary(db, number, log);
  }
  seen.set(db, newest);
}

const FIELDS = {
  number: jobs.number,
  boardId: jobs.boardId,
  boardRevision: jobs.boardRevision,
  training: jobs.training,
  openedAt: jobs.openedAt,
  symptom: jobSummaries.symptom,
  marks: jobSummaries.marks,
  swollen: jobSummaries.swollen,
  outcome: jobSummaries.outcome,
  version: jobSummaries.version,
  lastAt: jobSummaries.lastAt,
};

const summaries = (db: Session, where?: SQL) =>
  db.select(FIELDS).from(jobs).innerJoin(jobSummaries, eq(jobSummaries.jobNumber, jobs.number)).where(where);

type SummaryRow = Awaited<ReturnType<typeof summaries>>[number];

const toSummary = ({ outcome, lastAt, ...row }: SummaryRow): JobSummary => ({
  ...row,
  outcome: outcome ?? undefined,
  lastAt: lastAt || row.openedAt,
});

/** What a list of jobs is asked for. */
export interface JobQuery {
  readonly state?: 'open' | 'closed';
  /** Words of which each stands in the number, the symptom, the device's marks, the board or the outcome. */
  readonly words?: readonly string[];
  /** Boards whose name has one of the words, word by word. */
  readonly boardsByWord?: readonly (readonly string[])[];
  readonly limit: number;
  readonly offset?: number;
}

function whereOf({ state, words = [], boardsByWord = [] }: JobQuery): SQL | undefined {
  const open = state === 'open' ? isNull(jobSummaries.outcome) : undefined;
  const closed = state === 'closed' ? isNotNull(jobSummaries.outcome) : undefined;
  const each = words.map((word, i) => {
    const pattern = `%${word.replaceAll('%', '').replaceAll('_', '')}%`;
    const named = boardsByWord[i] ?? [];
    return or(
      like(sql`printf('%04d', ${jobs.number})`, pattern),
      like(jobSummaries.symptom, pattern),
      like(jobSummaries.marks, pattern),
      like(sql`coalesce(${jobSummaries.outcome}, 'open')`, pattern),
      like(jobs.boardId, pattern),
      named.length > 0 ? inArray(jobs.boardId, [...named]) : undefined,
    );
  });
  return and(open, closed, ...each);
}

/** A page of jobs, newest first, and how many there are. */
export async function queryJobs(
  db: Session,
  query: JobQuery,
): Promise<{ readonly jobs: JobSummary[]; readonly total: number }> {
  const where = whereOf(query);
  const [rows, [{ total }]] = await Promise.all([
    summaries(db, where)
      .orderBy(desc(jobs.number))
      .limit(query.limit)
      .offset(query.offset ?? 0),
    db
      .select({ total: count() })
      .from(jobs)
      .innerJoin(jobSummaries, eq(jobSummaries.jobNumber, jobs.number))
      .where(where),
  ]);
  return { jobs: rows.map(toSummary), total };
}

/** Open jobs, swollen packs first and then the newest. */
export async function openJobs(db: Session, limit: number): Promise<JobSummary[]> {
  const rows = await summaries(db, isNull(jobSummaries.outcome))
    .orderBy(desc(jobSummaries.swollen), desc(jobs.number))
    .limit(limit);
  return rows.map(toSummary);
}

/** Open real jobs in which a part was decided to be replaced, by number. */
export async function openJobsThatReplace(db: Session): Promise<{ row: JobSummary; events: JobEvent[] }[]> {
  const rows = await summaries(
    db,
    and(isNull(jobSummaries.outcome), eq(jobSummaries.replaces, true), eq(jobs.training, false)),
  ).orderBy(asc(jobs.number));
  const events = await eventsOfJobs(
    db,
    rows.map((r) => r.number),
  );
  return rows.map((row) => ({ row: toSummary(row), events: events.get(row.number)! }));
}

/** The soaks that run in open jobs. */
export async function runningSoaks(db: Session): Promise<{ job: number; soak: Soak }[]> {
  const rows = await db
    .select({ job: jobSummaries.jobNumber, soak: jobSummaries.soak })
    .from(jobSummaries)
    .where(isNotNull(jobSummaries.soak));
  return rows.flatMap(({ job, soak }) => {
    const read = readText(() => JSON.parse(soak!) as Soak);
    return read.ok ? [{ job, soak: read.value }] : [];
  });
}

/** What the Bench shows of jobs, where it was kept and can be read. */
export async function keptSteps(
  db: Session,
  numbers: readonly number[],
): Promise<Map<number, { step: unknown; basis: string }>> {
  const rows = await db
    .select({ number: jobSummaries.jobNumber, step: jobSummaries.step, basis: jobSummaries.stepBasis })
    .from(jobSummaries)
    .where(inArray(jobSummaries.jobNumber, [...numbers]));
  return new Map(
    rows.flatMap(({ number, step, basis }) => {
      const read = step && basis ? readText(() => JSON.parse(step) as unknown) : undefined;
      return read?.ok ? [[number, { step: read.value, basis: basis! }] as const] : [];
    }),
  );
}

export async function keepStep(db: Session, number: number, step: unknown, basis: string): Promise<void> {
  await db
    .update(jobSummaries)
    .set({ step: JSON.stringify(step), stepBasis: basis })
    .where(eq(jobSummaries.jobNumber, number));
}
