'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import * as stations from '@/application/library/stations';
import { database } from '@/db/client';

const shown = (answer: ActionResult): ActionResult => {
  if (answer.saved) revalidatePath('/', 'layout');
  return answer;
};

/** Fits the trials again here, and makes what they say the station's own. */
export const keepCalibration = async (stationId: string, input: unknown, key: string): Promise<ActionResult> =>
  shown(await stations.keepCalibration(await database(), stationId, input, key));

/** Adds a station, or changes what is not calibrated of one: its name, nozzles, dials, flows and plate. */
export const keepStation = async (input: unknown): Promise<ActionResult> =>
  shown(await stations.keepStation(await database(), input));
