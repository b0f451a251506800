import 'server-only';
import { cache } from 'react';
import { viewJob, type JobView } from '@/core/job';
import { findBoard } from '@/db/boards';
import { database } from '@/db/client';
import { knowledgeOf } from '@/db/knowledge';
import { findJob, jobEventsOf } from '@/db/jobs';

/** The view of one job; undefined when there is no such job. One computation per request. */
export const loadJob = cache(async (number: number): Promise<JobView | undefined> => {
  const db = await database();
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  if (!job || !board) return undefined;
  const [events, knowledge] = await Promise.all([jobEventsOf(db, number), knowledgeOf(db, board.id)]);
  return viewJob(job.number, job.openedAt, board, events, knowledge);
});
