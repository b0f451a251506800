'use server';

import { revalidatePath } from 'next/cache';
import { practiceSchema } from '@/core/diagnose';
import { database } from '@/db/client';
import { savePractice } from '@/db/knowledge';

export interface PracticeAnswer {
  readonly kept: boolean;
  readonly words: string;
}

/** Keeps the bench's own error rates; figures outside what makes sense change nothing. */
export async function keepPractice(practice: unknown): Promise<PracticeAnswer> {
  const parsed = practiceSchema.safeParse(practice);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return {
      kept: false,
      words: `Expected error rates from 0.1 to 50 %; ${issue.path.slice(-1).join('')}: ${issue.message}.`,
    };
  }
  await savePractice(await database(), parsed.data);
  revalidatePath('/', 'layout');
  return { kept: true, words: 'Kept: every open job counts with these from now on.' };
}
