'use server';

import { revalidatePath } from 'next/cache';
import { fitStation, trialSchema } from '@/core/calibration';
import { stationSchema } from '@/core/heat';
import { problemText } from '@/core/result';
import { database } from '@/db/client';
import { findStation, saveStation, takeCalibration } from '@/db/library';

export interface StationAnswer {
  readonly kept: boolean;
  readonly words: string;
}

const no = (words: string): StationAnswer => ({ kept: false, words });
const kept = (words: string): StationAnswer => {
  revalidatePath('/', 'layout');
  return { kept: true, words };
};

/** Fits the trials again here, and makes what they say the station's own. */
export async function keepCalibration(stationId: string, input: unknown, key: string): Promise<StationAnswer> {
  const trials = trialSchema.array().min(1).max(60).safeParse(input);
  if (!trials.success) return no(`Expected trials of the coupon; ${trials.error.issues[0].message}.`);
  const db = await database();
  const station = await findStation(db, stationId);
  if (!station) return no(`Expected a station of this bench; there is no "${stationId}".`);
  const flows = [...new Set(trials.data.map((t) => t.flowLpm))];
  if (flows.length > 1)
    return no(`Expected trials at one flow; got ${flows.join(' and ')} l/min. Calibrate flow by flow.`);
  const fit = fitStation(station, trials.data);
  if (!fit.ok) return no(problemText(fit.problems));
  const record = {
    at: new Date().toISOString(),
    flowLpm: flows[0],
    trials: trials.data.length,
    calibration: fit.value,
  };
  const now = (await takeCalibration(db, stationId, record, key))!;
  return kept(
    `Taken over: ε ${now.outletEfficiency.toFixed(2)}, m ${now.multiplier.toFixed(2)}, ${Math.round(100 * now.doubt)} % doubt.`,
  );
}

/** Adds a station, or changes what is not calibrated of one: its name, nozzles, dials, flows and plate. */
export async function keepStation(input: unknown): Promise<StationAnswer> {
  const parsed = stationSchema.safeParse(input);
  if (!parsed.success) {
    const [{ path, message }] = parsed.error.issues;
    return no(`Expected a station with ranges of dial and flow; ${path.map(String).join('.')}: ${message}.`);
  }
  const { setC, flowLpm } = parsed.data;
  if (setC[0] >= setC[1] || flowLpm[0] >= flowLpm[1])
    return no(`Expected ranges from low to high; got ${setC.join(' to ')} °C and ${flowLpm.join(' to ')} l/min.`);
  await saveStation(await database(), parsed.data);
  return kept(`Kept: ${parsed.data.name}.`);
}
