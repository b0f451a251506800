'use server';

import { revalidatePath } from 'next/cache';
import { parseBoardText } from '@/core/board';
import { problemText } from '@/core/result';
import { findBoard, saveBoard } from '@/db/boards';
import { database } from '@/db/client';

export interface DraftAnswer {
  readonly kept: boolean;
  readonly words: string;
}

/** Adds a board that was made from open files; a board that is there already is not written over. */
export async function addDraft(text: string): Promise<DraftAnswer> {
  const parsed = parseBoardText(text);
  if (!parsed.ok) return { kept: false, words: problemText(parsed.problems) };
  const db = await database();
  const { id } = parsed.value;
  if (await findBoard(db, id))
    return { kept: false, words: `Expected an id that no board has yet; got ${id}, which is in the library.` };
  await saveBoard(db, parsed.value, new Date().toISOString());
  revalidatePath('/library');
  return { kept: true, words: `${parsed.value.device}, ${parsed.value.name}: added.` };
}
