'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { calibrationFromCurve, calibrationFromMark } from '@/core/calibration';
import { heatGoalsSchema, heatPlanSchema } from '@/core/heat';
import { alloySchema } from '@/core/joints';
import { database } from '@/db/client';
import { problemText } from '@/core/result';
import { findGoals, saveGoals } from '@/db/knowledge';
import { calibrateFromRun, markKey, type Calibrate } from '@/db/run-calibration';
import { findJob } from '@/db/jobs';
import { findBoard } from '@/db/boards';

/** Readings of a log that are taken: two hours at five a second. */
const MOST_READINGS = 36_000;

export interface GoalsAnswer {
  readonly kept: boolean;
  readonly words: string;
}

const NAMES: Record<string, string> = {
  coldestOverLiquidusK: '0 to 40 K above liquidus',
  neighbourUnderSolidusK: '0 to 60 K below solidus',
  plasticLimitC: '80 to 300 °C for plastic bodies',
  ceilings: 'a table of package ceilings',
  dialLimitC: '200 to 500 °C, or nothing, for the hottest dial',
  riseLimitCPerS: '0.5 to 20 °C/s, or nothing, for the rise',
};

/** Keeps what this bench asks of plans in one alloy; every plan is judged by it from now on. */
export async function keepGoals(alloyName: unknown, input: unknown): Promise<GoalsAnswer> {
  const alloy = alloySchema.safeParse(alloyName);
  const goals = heatGoalsSchema.safeParse(input);
  if (!alloy.success) return { kept: false, words: `Expected one of ${alloySchema.options.join(', ')}.` };
  if (!goals.success) {
    const name = String(goals.error.issues[0].path[0]);
    const got = (input as Record<string, unknown>)[name];
    return { kept: false, words: `Expected ${NAMES[name] ?? 'a set of goals'}; got ${String(got)}.` };
  }
  const db = await database();
  await saveGoals(db, { ...(await findGoals(db)), [alloy.data]: goals.data });
  revalidatePath('/', 'layout');
  return { kept: true, words: 'Kept: every plan is judged by it from now on.' };
}

/** Takes the mark of a real run into the station, computed again here; it stands in the station's history. */
export async function keepMark(
  jobNumber: number,
  stationId: string,
  planInput: unknown,
  seenS: number,
): Promise<GoalsAnswer> {
  return keepRun(jobNumber, stationId, planInput, markKey(jobNumber, stationId, seenS), (board, station, plan) =>
    calibrationFromMark(board, station, plan, seenS),
  );
}

const curveSchema = z.object({
  ref: z.string().max(12),
  timesS: z.array(z.number()).max(MOST_READINGS),
  readC: z.array(z.number()).max(MOST_READINGS),
});

/** Takes the logged curve of a real run into the station, in the same way. */
export async function keepLogged(
  jobNumber: number,
  stationId: string,
  planInput: unknown,
  curveInput: unknown,
  key: string,
): Promise<GoalsAnswer> {
  const curve = curveSchema.safeParse(curveInput);
  if (!curve.success || curve.data.timesS.length !== curve.data.readC.length)
    return { kept: false, words: `Expected the times and readings of a log, at most ${MOST_READINGS} of each.` };
  return keepRun(jobNumber, stationId, planInput, key, (board, station, plan) =>
    calibrationFromCurve(board, station, plan, curve.data),
  );
}

async function keepRun(
  jobNumber: number,
  stationId: string,
  planInput: unknown,
  key: string,
  calibrate: Calibrate,
): Promise<GoalsAnswer> {
  const parsed = heatPlanSchema.safeParse(planInput);
  if (!parsed.success) return { kept: false, words: 'Expected the heat plan that was run.' };
  const db = await database();
  const row = await findJob(db, jobNumber);
  const board = row && (await findBoard(db, row.boardId));
  if (!board) return { kept: false, words: 'Expected a job and a station of this bench.' };
  const taken = await calibrateFromRun(db, { board, stationId, plan: parsed.data }, calibrate, key);
  if (!taken.ok) return { kept: false, words: problemText(taken.problems) };
  const now = taken.value;
  revalidatePath('/', 'layout');
  return {
    kept: true,
    words: `Taken over: ε ${now.outletEfficiency.toFixed(2)}, m ${now.multiplier.toFixed(2)}, ${Math.round(100 * now.doubt)} % doubt.`,
  };
}
