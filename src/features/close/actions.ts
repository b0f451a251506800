'use server';

import { revalidatePath } from 'next/cache';
import { lessonOf, viewJob, type JobView, type Outcome } from '@/core/job';
import { hiddenInJpeg, MOST_PICTURE_BYTES, pictureType } from '@/core/picture';
import { problemText } from '@/core/result';
import { findBoard } from '@/db/boards';
import { database, type Database } from '@/db/client';
import { enter } from '@/db/enter';
import { keepImage } from '@/db/images';
import { findJob, jobEventsOf } from '@/db/jobs';
import { dropReferences, keepReferences, knowledgeOf } from '@/db/knowledge';
import { addReport, dropReport } from '@/db/parts';
import { lessonKey } from './lesson-key';

interface CloseAnswer {
  readonly kept: boolean;
  readonly words: string;
}

async function viewOfJob(db: Database, number: number): Promise<JobView | undefined> {
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  if (!job || !board) return undefined;
  return viewJob(number, job.openedAt, board, await jobEventsOf(db, number), await knowledgeOf(db, board.id));
}

const noJob = (number: number): CloseAnswer => ({
  kept: false,
  words: `Expected a job that exists; there is no job ${number}.`,
});

/** Writes back what a repaired job taught: known-good readings and which chip worked where. Twice changes nothing. */
export async function keepLesson(number: number): Promise<CloseAnswer> {
  const db = await database();
  const view = await viewOfJob(db, number);
  if (!view) return noJob(number);
  const { references, reports } = lessonOf(view);
  if (references.length + reports.length === 0)
    return { kept: false, words: 'Expected a job closed as repaired, with good readings after the repair; got none.' };
  const at = new Date().toISOString();
  await keepReferences(db, references, at);
  for (const report of reports) await addReport(db, report, lessonKey(number), at);
  revalidatePath('/', 'layout');
  return { kept: true, words: `${references.length} readings and ${reports.length} reports kept.` };
}

/** Takes back what a job taught. */
export async function dropLesson(number: number): Promise<CloseAnswer> {
  const db = await database();
  const view = await viewOfJob(db, number);
  if (!view) return noJob(number);
  await dropReferences(db, view.board.id, `job ${number}`);
  await dropReport(db, lessonKey(number));
  revalidatePath('/', 'layout');
  return { kept: true, words: 'Taken back: nothing of this job counts any more.' };
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

/** Keeps a picture for the report: a JPEG that was masked in the browser and carries nothing but its picture. */
export async function keepPicture(number: number, form: FormData, key: string): Promise<CloseAnswer> {
  const no = (words: string): CloseAnswer => ({ kept: false, words: `${words} Nothing was kept.` });
  const file = form.get('picture');
  const words = String(form.get('words') ?? '').trim();
  const masks = Number(form.get('masks'));
  if (!(file instanceof File)) return no('Expected a picture; got none.');
  if (file.size > MOST_PICTURE_BYTES)
    return no(`Expected at most ${MOST_PICTURE_BYTES / 1e6} MB; got ${(file.size / 1e6).toFixed(1)}.`);
  if (words === '') return no('Expected what the picture shows; got nothing.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (pictureType(bytes) !== 'image/jpeg') return no('Expected a JPEG picture; this file is none.');
  const hidden = hiddenInJpeg(bytes);
  if (hidden) return no(`Expected nothing but the picture; the file carries ${hidden}.`);
  const db = await database();
  if (!(await findJob(db, number))) return noJob(number);
  const sha256 = await keepImage(db, { bytes, name: `picture of job ${number}`, at: new Date().toISOString() });
  const stored = await enter(db, number, { body: { kind: 'picture', sha256, words, masks } }, key);
  if (!stored.ok) return no(problemText(stored.problems));
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: 'Kept for the report.' };
}
