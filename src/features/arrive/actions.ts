'use server';

import { revalidatePath } from 'next/cache';
import type { Story } from '@/core/job';
import { problemText } from '@/core/result';
import { findBoard } from '@/db/boards';
import { database } from '@/db/client';
import { enter } from '@/db/enter';
import { openJob } from '@/db/jobs';

/** Keeps the story of a job; a later story corrects the earlier one, which stays in the record. */
export async function keepStory(number: number, story: Story, key: string): Promise<{ kept: boolean; words: string }> {
  const db = await database();
  const stored = await enter(db, number, story, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: 'Kept.' };
}

/** Opens a job with its story. Nothing is opened when the story is not complete. */
export async function openNewJob(boardId: string, story: Story): Promise<{ number?: number; words: string }> {
  const db = await database();
  if (!(await findBoard(db, boardId))) return { words: `Expected a board of the library; got "${boardId}".` };
  if (story.symptom.trim() === '') return { words: 'Expected the symptom in the owner’s words; got nothing.' };
  const number = await openJob(db, boardId, new Date().toISOString());
  const stored = await enter(db, number, story);
  return stored.ok ? { number, words: 'Opened.' } : { number, words: problemText(stored.problems) };
}
