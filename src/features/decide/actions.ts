'use server';

import { revalidatePath } from 'next/cache';
import type { EventBody } from '@/core/job';
import { problemText } from '@/core/result';
import { database } from '@/db/client';
import { enter } from '@/db/enter';

type Decision = Extract<EventBody, { kind: 'decision' }>;

export async function keepDecision(
  number: number,
  decision: Decision,
  key: string,
): Promise<{ kept: boolean; words: string }> {
  const stored = await enter(await database(), number, { body: decision }, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: 'Kept.' };
}
