'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import { chooseChip } from '@/application/jobs/choose-chip';
import * as settings from '@/application/settings';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';

/** Chooses the chip for the place that the job is about, in the stock and in the job. */
export const chooseRoute = taking(
  [arg.number, arg.text, arg.key],
  async (number: number, offer: string, key: string): Promise<ActionResult> => {
    const answer = await chooseChip(await database(), number, offer, key);
    revalidatePath('/', 'layout');
    return answer;
  },
);

/** Keeps which resistors straps are made of. */
export async function keepStrapSettings(input: unknown): Promise<ActionResult> {
  const answer = await settings.keepStrapSettings(await database(), input);
  revalidatePath('/', 'layout');
  return answer;
}
