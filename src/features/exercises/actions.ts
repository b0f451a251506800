'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import * as exercises from '@/application/drills/exercises';
import * as memory from '@/application/drills/memory';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';

export const beginExercise = taking([arg.any, arg.key], async (spec: unknown, key: string): Promise<ActionResult> =>
  exercises.beginExercise(await database(), spec, key),
);

/** Keeps how well a fact was known. */
export const keepRecall = taking(
  [arg.text, arg.any, arg.key],
  async (factId: string, recall: unknown, key: string): Promise<ActionResult> =>
    memory.keepRecall(await database(), factId, recall, key),
);

export const finishExercise = taking(
  [arg.number, arg.any, arg.key],
  async (id: number, done: unknown, key: string): Promise<ActionResult> => {
    const answer = await exercises.finishExercise(await database(), id, done, key);
    if (answer.saved) revalidatePath('/drills', 'layout');
    return answer;
  },
);
