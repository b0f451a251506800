'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import * as boards from '@/application/library/boards';
import { database } from '@/db/client';

/** Adds a board that was made from open files; a board that is there already is not written over. */
export async function addDraft(text: string): Promise<ActionResult> {
  const answer = await boards.addDraft(await database(), text);
  if (answer.saved) revalidatePath('/library');
  return answer;
}
