import 'server-only';
import { reportOf, viewJob, type JobReport } from '@/core/job';
import { findBoard } from '@/db/boards';
import { database } from '@/db/client';
import { findJob, jobEventsOf } from '@/db/jobs';
import { findReportWords } from '@/db/knowledge';

/** The report of a job; undefined when there is no such job. */
export async function loadReport(number: number, withPrivate = false): Promise<JobReport | undefined> {
  const db = await database();
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  if (!job || !board) return undefined;
  const view = viewJob(number, job.openedAt, board, await jobEventsOf(db, number));
  return reportOf(view, { words: await findReportWords(db), withPrivate });
}
