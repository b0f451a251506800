'use server';

import { revalidatePath } from 'next/cache';
import { practiceSchema, type Practice } from '@/core/diagnose';
import { foldJob, kindsAtFault, learnedRecords, type KindRecord } from '@/core/job';
import { database } from '@/db/client';
import { listBoards } from '@/db/boards';
import { workOfClosedJobs } from '@/db/jobs';
import { findPractice, savePractice } from '@/db/knowledge';

export interface PracticeAnswer {
  readonly kept: boolean;
  readonly words: string;
}

/** Keeps what the bench settles for itself, beside what it settled before; what makes no sense changes nothing. */
export async function keepPractice(change: unknown): Promise<PracticeAnswer> {
  const parsed = practiceSchema.partial().safeParse(change);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    const where = issue.path.map(String).join(', ');
    return { kept: false, words: `Expected figures within their bounds; ${where}: ${issue.message}.` };
  }
  const db = await database();
  const given = Object.fromEntries(
    Object.keys(change as object).map((key) => [key, parsed.data[key as keyof Practice]]),
  );
  await savePractice(db, { ...(await findPractice(db)), ...given });
  revalidatePath('/', 'layout');
  return { kept: true, words: 'Kept: every open job counts with it from now on.' };
}

/** What the closed jobs of this bench say of each kind of part; nothing is kept by asking. */
export async function learnFromJobs(): Promise<{ readonly jobs: number; readonly records: readonly KindRecord[] }> {
  const db = await database();
  const boards = new Map((await listBoards(db)).map((b) => [b.id, b]));
  const repaired = (await workOfClosedJobs(db)).flatMap(({ boardId, events }) => {
    const board = boards.get(boardId);
    const state = foldJob(events);
    return board && state.closed?.outcome === 'repaired' ? [{ board, kinds: kindsAtFault(board, state) }] : [];
  });
  return { jobs: repaired.length, records: learnedRecords(repaired) };
}
