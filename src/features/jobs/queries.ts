import 'server-only';
import { database } from '@/db/client';
import { listBoards } from '@/db/boards';
import { jobSummaries, type JobSummary } from '@/db/jobs';

export interface JobLine extends JobSummary {
  readonly device: string;
}

/** All jobs, newest first, with what can be read without computing. */
export async function loadJobs(): Promise<JobLine[]> {
  const db = await database();
  const [jobs, boards] = await Promise.all([jobSummaries(db), listBoards(db)]);
  const deviceOf = new Map(boards.map((b) => [b.id, `${b.device}, ${b.name}`]));
  return jobs.map((j) => ({ ...j, device: deviceOf.get(j.boardId) ?? j.boardId }));
}

export async function loadBoardChoices(): Promise<{ id: string; name: string }[]> {
  const boards = await listBoards(await database());
  return boards.map((b) => ({ id: b.id, name: `${b.device}, ${b.name}, revision ${b.revision}` }));
}
