import type { JobNumber } from '../../core/identities';
import { calibrationFromMark } from '../../core/calibration';
import { judgedByJob } from '../../core/choice';
import {
  beyondBoard,
  closeoutRecordOf,
  lessonName,
  reportOf,
  type JobReport,
  type JobView,
  type Outcome,
  type RunMarkSeen,
} from '../../core/job';
import { problemText } from '../../core/result';
import { foldStock } from '../../core/stock';
import type { Database } from '../../db/client';
import { imageBytes } from '../../db/images';
import { findJob, type EntryMeta } from '../../db/jobs';
import { dropReferences, findReportWords, keepReferences, listReferences } from '../../db/knowledge';
import { dropCalibration } from '../../db/library';
import { addReport, dropReport, isReported } from '../../db/parts';
import { sealOfJob } from '../../db/seals';
import type { Session } from '../../db/session';
import { appendStock, stockEventsOf } from '../../db/stock';
import { refused, refusedFor, saved, type ActionResult } from '../action-result';
import { markKey, stationAfterRun, takeRun, type StationAfterRun } from '../calibrate-from-run';
import { oncePrepared } from '../once';
import { loadPlace } from '../place';
import { enter } from './execute';
import { loadJob } from './load-job';

export interface Closing {
  readonly outcome: Outcome;
  /** What the owner is told. */
  readonly cause: string;
  /** Why it closes with gates not met. */
  readonly reason?: string;
  readonly minutes?: number;
  readonly price?: number;
}

/** Closes a job. As repaired only when all gates hold, or with a reason. */
export const closeJob = (db: Database, number: JobNumber, { reason, ...closing }: Closing, key: string) =>
  enter(db, number, { kind: 'close', ...closing, reason: reason?.trim() || undefined }, key, { message: 'Closed.' });

/** The key under which a job's report of its chip is kept; the name is that of its lesson. */
const lessonKey = (name: string): string => `lesson of ${name}`;

interface Lesson {
  readonly job: JobView;
  readonly record: ReturnType<typeof closeoutRecordOf>;
  /** What the run says of its station, worked out before anything is stored. */
  readonly station?: StationAfterRun;
}

/**
 * Writes back what a repaired job taught: known-good readings, which chip worked where, that it was not dead on arrival,
 * and what the run says of its station. All of it or nothing; twice changes nothing.
 */
export function keepLesson(db: Database, number: JobNumber, key?: string): Promise<ActionResult> {
  return oncePrepared(
    db,
    { key, scope: `job ${number}`, request: 'keep lesson' },
    async (before) => {
      const job = await loadJob(before, number);
      if (!job.ok) return job;
      const record = closeoutRecordOf(job.value, await loadPlace(before));
      const station = record.mark && (await stationOfMark(before, job.value, record.mark));
      return { ok: true as const, value: { job: job.value, record, station } };
    },
    async (tx, meta, lesson) =>
      lesson.ok ? writeLesson(tx, lesson.value, meta) : refusedFor(lesson.problems, 'notFound'),
  );
}

const stationOfMark = (db: Session, { board }: JobView, { stationId, plan, seenS }: RunMarkSeen) =>
  stationAfterRun(db, { board, stationId: stationId!, plan }, (on, station, run) =>
    calibrationFromMark(on, station, run, seenS),
  );

async function writeLesson(tx: Session, { job, record, station }: Lesson, meta: EntryMeta): Promise<ActionResult> {
  const { references, reports, chip, mark } = record;
  if (job.training) return refused('Expected a real job: what a training job taught counts nowhere else.');
  if (references.length + reports.length === 0)
    return refused('Expected a job closed as repaired, with good readings after the repair; got none.');
  const name = lessonName(job.number, job.priorClosures.length);
  await keepReferences(tx, references, meta.at);
  for (const report of reports) await addReport(tx, report, lessonKey(name), meta.at);
  const done = [`${references.length} readings and ${reports.length} reports kept.`];
  if (chip !== undefined) {
    const verdict = { chip, job: job.number, condition: 'sound' as const, why: `${name} proven` };
    done.push(await judgeChip(tx, verdict, { ...meta, key: `${lessonKey(name)} ${meta.at}` }));
  }
  if (mark && station) {
    const taken = await takeRun(tx, station, markKey(job.number, mark.stationId!, mark.seenS), meta.at);
    done.push(
      taken.ok
        ? `${taken.value.name} moved to the mark at ${mark.seenS} s.`
        : `Station: ${problemText(taken.problems)}`,
    );
  }
  return saved(done.filter(Boolean).join(' '));
}

/** A chip that is still on the board it was proven on gets its verdict; the stock says no to any other. */
async function judgeChip(tx: Session, verdict: Parameters<typeof judgedByJob>[2], meta: EntryMeta): Promise<string> {
  const events = await stockEventsOf(tx);
  const { body, message } = judgedByJob(
    foldStock(events),
    events.map((e) => e.body),
    verdict,
  );
  if (!body) return message;
  const judged = await appendStock(tx, [body], meta);
  return judged.ok ? message : problemText(judged.problems);
}

/** Takes back what a job taught, this time or a time before it came back. */
export function dropLesson(db: Database, number: JobNumber, timesBack?: number): Promise<ActionResult> {
  return oncePrepared(
    db,
    { scope: `job ${number}`, request: 'drop lesson' },
    (before) => loadJob(before, number),
    async (tx, meta, job) => {
      if (!job.ok) return refusedFor(job.problems, 'notFound');
      const { state, priorClosures: past, board } = job.value;
      const then = timesBack === undefined ? state : state.priorClosures[timesBack]?.state;
      if (!then) return refused(`Expected a time at which job ${number} was closed; got ${timesBack}.`, 'badInput');
      const name = lessonName(number, timesBack ?? past.length);
      const { chip, mark } = beyondBoard(then);
      await dropReferences(tx, board.id, name);
      await dropReport(tx, lessonKey(name));
      const done = ['Taken back: nothing of it counts any more.'];
      if (chip !== undefined) {
        const verdict = { chip, job: number, condition: 'suspect' as const, why: `${name} taken back` };
        await judgeChip(tx, verdict, { ...meta, key: `${lessonKey(name)} back ${meta.at}` });
      }
      if (mark && (await dropCalibration(tx, markKey(number, mark.stationId!, mark.seenS))) === 'later')
        done.push('The station was calibrated again since: it keeps its figures.');
      return saved(done.join(' '));
    },
  );
}

/** Whether what a job taught has been written back, this time or a time before it came back. */
export async function isLessonKept(db: Session, number: JobNumber, timesBack = 0): Promise<boolean> {
  const job = await findJob(db, number);
  if (!job) return false;
  const name = lessonName(number, timesBack);
  if (await isReported(db, lessonKey(name))) return true;
  return (await listReferences(db, job.boardId)).some((r) => r.source === name);
}

/** The report of a job; undefined when there is no such job. */
export async function loadReport(db: Session, number: JobNumber, withPrivate = false): Promise<JobReport | undefined> {
  const job = await loadJob(db, number);
  return job.ok
    ? reportOf(job.value, {
        words: await findReportWords(db),
        withPrivate,
        place: await loadPlace(db),
        seal: await sealOfJob(db, number),
      })
    : undefined;
}

/** The bytes of a report's pictures, by their SHA-256. */
export async function loadReportPictures(db: Session, { pictures }: JobReport): Promise<ReadonlyMap<string, Buffer>> {
  const found = await Promise.all(pictures.map(async ({ sha256 }) => [sha256, await imageBytes(db, sha256)] as const));
  return new Map(found.flatMap(([sha256, bytes]) => (bytes ? [[sha256, Buffer.from(bytes)] as const] : [])));
}
