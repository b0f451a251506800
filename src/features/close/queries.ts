import 'server-only';
import { reportOf, viewJob, type JobReport } from '@/core/job';
import { findBoard } from '@/db/boards';
import { database } from '@/db/client';
import { findJob, jobEventsOf } from '@/db/jobs';

/** The report of a job; undefined when there is no such job. */
export async function loadReport(number: number): Promise<JobReport | undefined> {
  const db = await database();
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  return job && board && reportOf(viewJob(number, job.openedAt, board, await jobEventsOf(db, number)));
}
