'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import * as records from '@/application/records/records';
import { database } from '@/db/client';

/** Whether plans and promises count with what was learned. */
export async function keepLearning(durations: boolean): Promise<ActionResult> {
  const answer = await records.keepLearning(await database(), durations);
  if (answer.saved) revalidatePath('/records');
  return answer;
}
