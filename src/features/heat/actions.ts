'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import type { ActionResult } from '@/application/action-result';
import * as runs from '@/application/calibrate-from-run';
import * as settings from '@/application/settings';
import { database } from '@/db/client';

const shown = (answer: ActionResult): ActionResult => {
  if (answer.saved) revalidatePath('/', 'layout');
  return answer;
};

/** Keeps what this bench asks of plans in one alloy; every plan is judged by it from now on. */
export const keepGoals = async (alloyName: unknown, input: unknown): Promise<ActionResult> =>
  shown(await settings.keepGoals(await database(), alloyName, input));

/** Takes the mark of a real run into the station, computed again here; it stands in the station's history. */
export const keepMark = async (job: number, stationId: string, plan: unknown, seenS: number): Promise<ActionResult> =>
  shown(await runs.keepMark(await database(), { job, stationId, plan }, seenS));

const curveSchema = z.object({
  ref: z.string().max(12),
  timesS: z.array(z.number()).max(runs.MOST_READINGS),
  readC: z.array(z.number()).max(runs.MOST_READINGS),
});

/** Takes the logged curve of a real run into the station, in the same way. */
export async function keepLogged(
  job: number,
  stationId: string,
  plan: unknown,
  curveInput: unknown,
  key: string,
): Promise<ActionResult> {
  const curve = curveSchema.safeParse(curveInput);
  if (!curve.success || curve.data.timesS.length !== curve.data.readC.length) return runs.badLog();
  return shown(await runs.keepLogged(await database(), { job, stationId, plan }, curve.data, key));
}
