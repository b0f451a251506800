'use server';

import { revalidatePath } from 'next/cache';
import { referencesFromJob, viewJob, type Outcome } from '@/core/job';
import { problemText } from '@/core/result';
import { findBoard } from '@/db/boards';
import { database } from '@/db/client';
import { enter } from '@/db/enter';
import { findJob, jobEventsOf } from '@/db/jobs';
import { keepReferences, knowledgeOf } from '@/db/knowledge';

/** Keeps the readings of a repaired job as known-good ones; a second time changes nothing. */
export async function keepReferencesOf(number: number): Promise<{ kept: boolean; words: string }> {
  const db = await database();
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  if (!job || !board) return { kept: false, words: `Expected a job that exists; there is no job ${number}.` };
  const view = viewJob(number, job.openedAt, board, await jobEventsOf(db, number), await knowledgeOf(db, board.id));
  const readings = referencesFromJob(view);
  if (readings.length === 0)
    return { kept: false, words: 'Expected a job closed as repaired, with good readings after the repair; got none.' };
  await keepReferences(db, readings, new Date().toISOString());
  revalidatePath('/', 'layout');
  return { kept: true, words: `${readings.length} readings kept as known good.` };
}

export interface Closing {
  readonly outcome: Outcome;
  /** What the owner is told. */
  readonly cause: string;
  /** Why it closes with gates open. */
  readonly reason?: string;
  readonly minutes?: number;
  readonly price?: number;
}

/** Closes a job. As repaired only when all gates hold, or with a reason. */
export async function closeJob(
  number: number,
  { reason, ...closing }: Closing,
  key: string,
): Promise<{ kept: boolean; words: string }> {
  const db = await database();
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  if (!job || !board) return { kept: false, words: `Expected a job that exists; there is no job ${number}.` };
  const { proof } = viewJob(number, job.openedAt, board, await jobEventsOf(db, number));
  if (closing.outcome === 'repaired' && !proof.allHold && !reason?.trim()) {
    const open = proof.gates.filter((g) => !g.holds).map((g) => `${g.words.toLowerCase()} (${g.missing})`);
    return { kept: false, words: `Expected all gates to hold, or a reason. Open: ${open.join('; ')}.` };
  }
  const body = { kind: 'close' as const, ...closing, reason: reason?.trim() || undefined };
  const stored = await enter(db, number, { body }, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: 'Closed.' };
}
