'use server';

import { revalidatePath } from 'next/cache';
import { foldJob, parseEntry, type EntryMode, type EventBody, type JobEvent } from '@/core/job';
import { foldStock } from '@/core/stock';
import { problemText } from '@/core/result';
import type { EntryAnswer } from '@/ui';
import { findBoard } from '@/db/boards';
import { database, type Database } from '@/db/client';
import { benchMeta, enter, execute } from '@/db/enter';
import { findJob, jobEventsOf } from '@/db/jobs';
import { appendStock, stockEventsOf } from '@/db/stock';

const refresh = (): void => revalidatePath('/jobs/[number]', 'layout');

/** Reads a typed line again on the server, stores it, and answers when it is on disk. */
export async function enterLine(number: number, text: string, mode: EntryMode, key: string): Promise<EntryAnswer> {
  const db = await database();
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  if (!job || !board) return { kept: false, words: `Expected a job that exists; there is no job ${number}.` };
  const entry = parseEntry(board, foldJob(await jobEventsOf(db, number)), text, mode);
  if (!entry.ok) return { kept: false, words: problemText(entry.problems) };
  const stored = await execute(db, number, entry.value.command, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  await fitChosenChip(db, number, stored.value.body, key);
  refresh();
  return { kept: true, words: entry.value.echo, seq: stored.value.seq };
}

/** Stores an event that a button or a form made. */
export async function enterEvent(number: number, body: EventBody, key: string): Promise<EntryAnswer> {
  const db = await database();
  const stored = await enter(db, number, body, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  await fitChosenChip(db, number, body, key);
  refresh();
  return { kept: true, words: 'Kept.', seq: stored.value.seq };
}

/**
 * A new part that goes on is the chip that was chosen for its place: the stock then has it on the board. Where the stock
 * has it elsewhere by now, the stock stays as it is: the job's record does not wait for it.
 */
async function fitChosenChip(db: Database, number: number, body: JobEvent['body'], key: string): Promise<void> {
  if (body.kind !== 'partOn' || !body.fresh) return;
  const { route } = foldJob(await jobEventsOf(db, number));
  if (route?.ref !== body.ref) return;
  const chip = foldStock(await stockEventsOf(db)).chips.get(route.offer);
  if (chip?.place.kind !== 'bag' || chip.place.job !== number) return;
  const to = { kind: 'fitted', job: number, ref: body.ref } as const;
  await appendStock(db, [{ kind: 'move', chips: [chip.id], to }], benchMeta(`stock ${key}`));
}

/** Takes back the last entry that counts. It stays in the record. */
export async function undoLast(number: number, key: string): Promise<EntryAnswer> {
  const db = await database();
  const stored = await execute(db, number, { do: 'undoLast' }, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  refresh();
  return { kept: true, words: 'Taken back; it stays in the record.' };
}
