'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import * as exercises from '@/application/drills/exercises';
import * as memory from '@/application/drills/memory';
import { database } from '@/db/client';

export const beginExercise = async (spec: unknown, key: string): Promise<ActionResult> =>
  exercises.beginExercise(await database(), spec, key);

/** Keeps how well a fact was known. */
export const keepRecall = async (factId: string, recall: unknown, key: string): Promise<ActionResult> =>
  memory.keepRecall(await database(), factId, recall, key);

export async function finishExercise(id: number, done: unknown, key: string): Promise<ActionResult> {
  const answer = await exercises.finishExercise(await database(), id, done, key);
  if (answer.saved) revalidatePath('/drills', 'layout');
  return answer;
}
