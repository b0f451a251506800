'use server';

import { revalidatePath } from 'next/cache';
import type { EventBody } from '@/core/job';
import { problemText } from '@/core/result';
import { database } from '@/db/client';
import { enter } from '@/db/enter';

type Site = Extract<EventBody, { kind: 'site' }>;

export async function keepSite(number: number, site: Site, key: string): Promise<{ kept: boolean; words: string }> {
  const stored = await enter(await database(), number, { body: site }, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: 'Kept.' };
}
