import 'server-only';
import { lessonName, reportOf, viewJob, type JobReport } from '@/core/job';
import { findBoard } from '@/db/boards';
import { database } from '@/db/client';
import { imageBytes } from '@/db/images';
import { findJob, jobEventsOf } from '@/db/jobs';
import { findReportWords, knowledgeOf, listReferences } from '@/db/knowledge';
import { isReported } from '@/db/parts';
import { lessonKey } from './lesson-key';

/** The report of a job; undefined when there is no such job. */
export async function loadReport(number: number, withPrivate = false): Promise<JobReport | undefined> {
  const db = await database();
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  if (!job || !board) return undefined;
  const view = viewJob(number, job.openedAt, board, await jobEventsOf(db, number), await knowledgeOf(db, board.id));
  return reportOf(view, { words: await findReportWords(db), withPrivate });
}

/** Whether what a job taught has been written back, this time or a time before it came back. */
export async function isLessonKept(number: number, timesBack = 0): Promise<boolean> {
  const db = await database();
  const job = await findJob(db, number);
  if (!job) return false;
  const name = lessonName(number, timesBack);
  if (await isReported(db, lessonKey(name))) return true;
  return (await listReferences(db, job.boardId)).some((r) => r.source === name);
}

/** The bytes of a report's pictures, by their SHA-256. */
export async function loadReportPictures({ pictures }: JobReport): Promise<ReadonlyMap<string, Buffer>> {
  const db = await database();
  const found = await Promise.all(pictures.map(async ({ sha256 }) => [sha256, await imageBytes(db, sha256)] as const));
  return new Map(found.flatMap(([sha256, bytes]) => (bytes ? [[sha256, Buffer.from(bytes)] as const] : [])));
}
