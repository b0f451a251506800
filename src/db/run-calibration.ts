import type { Board } from '../core/board';
import { calibrated, type Calibration } from '../core/calibration';
import { stationSchema, workplaceOf, type HeatPlan, type Station } from '../core/heat';
import { fail, ok, type Result } from '../core/result';
import type { Database } from './client';
import { findStation, takeCalibration } from './library';

/** What a real run says of its station: worked out from its board, the station as it is, and the plan. */
export type Calibrate = (
  board: Board,
  station: Station,
  plan: HeatPlan,
) => Result<{ readonly calibration: Calibration }>;

/** One run holds a station's figures to what was seen; the same mark of the same job counts once, by this key. */
export const markKey = (job: number, stationId: string, seenS: number): string =>
  `mark of job ${job} on ${stationId} at ${seenS} s`;

/** Takes what a run says into its station, where that gives a station that can be. */
export async function calibrateFromRun(
  db: Database,
  { board, stationId, plan }: { readonly board: Board; readonly stationId: string; readonly plan: HeatPlan },
  calibrate: Calibrate,
  key: string,
): Promise<Result<Station>> {
  const station = await findStation(db, stationId);
  if (!station) return fail('Expected a job and a station of this bench.');
  const found = calibrate(workplaceOf(board, plan), station, plan);
  if (!found.ok) return found;
  const flowLpm = Math.max(...plan.steps.map((s) => s.flowLpm));
  const record = { at: new Date().toISOString(), flowLpm, trials: 1, calibration: found.value.calibration };
  // A log that fits another plan or probe asks for a station that cannot be: said, and nothing is stored.
  if (!stationSchema.safeParse(calibrated(station, record)).success) {
    const { outletEfficiency: e, multiplier: m } = found.value.calibration;
    return fail(
      `Expected a run of this plan: an outlet ε of 0.3 to 1.1 and a film m of 0.1 to 3; it asks for ${e.value.toFixed(2)} and ${m.value.toFixed(2)}.`,
    );
  }
  return ok((await takeCalibration(db, stationId, record, key))!);
}
