'use server';

import { revalidatePath } from 'next/cache';
import { foldJob, lastUndoable, parseEntry, type EntryMode, type EventBody } from '@/core/job';
import { problemText } from '@/core/result';
import type { EntryAnswer } from '@/ui';
import { findBoard } from '@/db/boards';
import { database } from '@/db/client';
import { enter } from '@/db/enter';
import { findJob, jobEventsOf } from '@/db/jobs';

const refresh = (): void => revalidatePath('/jobs/[number]', 'layout');

/** Reads a typed line again on the server, stores it, and answers when it is on disk. */
export async function enterLine(number: number, text: string, mode: EntryMode, key: string): Promise<EntryAnswer> {
  const db = await database();
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  if (!job || !board) return { kept: false, words: `Expected a job that exists; there is no job ${number}.` };
  const entry = parseEntry(board, foldJob(await jobEventsOf(db, number)), text, mode);
  if (!entry.ok) return { kept: false, words: problemText(entry.problems) };
  const stored = await enter(db, number, entry.value, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  refresh();
  return { kept: true, words: entry.value.echo, seq: stored.value.seq };
}

/** Stores an event that a button or a form made. */
export async function enterEvent(number: number, body: EventBody, key: string): Promise<EntryAnswer> {
  const stored = await enter(await database(), number, { body }, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  refresh();
  return { kept: true, words: 'Kept.', seq: stored.value.seq };
}

/** Takes back the last entry that counts. It stays in the record. */
export async function undoLast(number: number, key: string): Promise<EntryAnswer> {
  const db = await database();
  const last = lastUndoable(await jobEventsOf(db, number));
  if (!last) return { kept: false, words: 'Nothing to undo: the story stays.' };
  const stored = await enter(db, number, { body: { kind: 'undo', seq: last.seq } }, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  refresh();
  return { kept: true, words: 'Taken back; it stays in the record.' };
}
