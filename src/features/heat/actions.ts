'use server';

import { revalidatePath } from 'next/cache';
import type { EventBody } from '@/core/job';
import { problemText } from '@/core/result';
import { database } from '@/db/client';
import { enter } from '@/db/enter';

type KeptPlan = Extract<EventBody, { kind: 'heatPlan' }>;

export async function keepHeatPlan(
  number: number,
  plan: KeptPlan,
  key: string,
): Promise<{ kept: boolean; words: string }> {
  const stored = await enter(await database(), number, { body: plan }, key);
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: `the plan for ${plan.plan.partRef}` };
}
