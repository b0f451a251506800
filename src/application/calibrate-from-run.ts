import type { Board } from '../core/board';
import {
  calibrated,
  calibrationFromCurve,
  calibrationFromMark,
  type Calibration,
  type CalibrationRecord,
} from '../core/calibration';
import { heatPlanSchema, stationSchema, workplaceOf, type HeatPlan, type Station } from '../core/heat';
import { fail, ok, type Result } from '../core/result';
import type { Database } from '../db/client';
import { findStation, takeCalibration } from '../db/library';
import type { Session } from '../db/session';
import { refused, refusedFor, saved, type ActionResult } from './action-result';
import { loadRecord } from './jobs/load-job';
import { oncePrepared } from './once';

/** What a real run says of its station: worked out from its board, the station as it is, and the plan. */
export type Calibrate = (
  board: Board,
  station: Station,
  plan: HeatPlan,
) => Result<{ readonly calibration: Calibration }>;

/** One run holds a station's figures to what was seen; the same mark of the same job counts once, by this key. */
export const markKey = (job: number, stationId: string, seenS: number): string =>
  `mark of job ${job} on ${stationId} at ${seenS} s`;

/** A station as a run leaves it, worked out from the station as it was. */
export type StationAfterRun = Result<{
  readonly station: Station;
  readonly record: Omit<CalibrationRecord, 'at'>;
}>;

/** Works out what a run says of its station, where that gives a station that can be. Nothing is stored. */
export async function stationAfterRun(
  db: Session,
  { board, stationId, plan }: { readonly board: Board; readonly stationId: string; readonly plan: HeatPlan },
  calibrate: Calibrate,
): Promise<StationAfterRun> {
  const station = await findStation(db, stationId);
  if (!station) return fail('Expected a job and a station of this bench.');
  const found = calibrate(workplaceOf(board, plan), station, plan);
  if (!found.ok) return found;
  const flowLpm = Math.max(...plan.steps.map((s) => s.flowLpm));
  const record = { flowLpm, trials: 1, calibration: found.value.calibration };
  // A log that fits another plan or probe asks for a station that cannot be: said, and nothing is stored.
  if (!stationSchema.safeParse(calibrated(station, record)).success) {
    const { outletEfficiency: e, multiplier: m } = found.value.calibration;
    return fail(
      `Expected a run of this plan: an outlet ε of 0.3 to 1.1 and a film m of 0.1 to 3; it asks for ${e.value.toFixed(2)} and ${m.value.toFixed(2)}.`,
    );
  }
  return ok({ station, record });
}

/** Takes what a run says into its station, unless the station was changed since it was worked out. */
export async function takeRun(tx: Session, found: StationAfterRun, key: string, at: string): Promise<Result<Station>> {
  if (!found.ok) return found;
  const { station, record } = found.value;
  const now = await findStation(tx, station.id);
  if (JSON.stringify(now) !== JSON.stringify(station))
    return fail(`Expected ${station.name} as it was when the run was worked out; it was changed meanwhile.`);
  return ok((await takeCalibration(tx, station.id, { ...record, at }, key))!);
}

export interface RunOfJob {
  readonly job: number;
  readonly stationId: string;
  readonly plan: unknown;
}

/** Takes the mark of a real run into the station, computed again here; it stands in the station's history. */
export const keepMark = (db: Database, run: RunOfJob, seenS: number): Promise<ActionResult> =>
  keepRun(db, run, { mark: markKey(run.job, run.stationId, seenS) }, (board, station, plan) =>
    calibrationFromMark(board, station, plan, seenS),
  );

/** Takes the logged curve of a real run into the station, in the same way. */
export const keepLogged = (
  db: Database,
  run: RunOfJob,
  curve: Parameters<typeof calibrationFromCurve>[3],
  key: string,
): Promise<ActionResult> =>
  keepRun(db, run, { key, curve }, (board, station, plan) => calibrationFromCurve(board, station, plan, curve));

/** A mark counts once by its name, and may be taken again after it was taken back; a curve counts once by its entry. */
function keepRun(
  db: Database,
  run: RunOfJob,
  seen: { readonly mark: string } | { readonly key: string; readonly curve: object },
  calibrate: Calibrate,
): Promise<ActionResult> {
  const key = 'key' in seen ? seen.key : undefined;
  return oncePrepared(
    db,
    { key, scope: `station ${run.stationId}`, request: { ...run, ...seen } },
    async (before): Promise<StationAfterRun> => {
      const plan = heatPlanSchema.safeParse(run.plan);
      if (!plan.success) return fail('Expected the heat plan that was run.');
      const job = await loadRecord(before, run.job);
      if (!job.ok) return fail('Expected a job and a station of this bench.');
      if (job.value.row.training) return fail('Expected a run of a real job: a training job moves no station.');
      return stationAfterRun(before, { board: job.value.board, stationId: run.stationId, plan: plan.data }, calibrate);
    },
    async (tx, meta, found) => {
      const taken = await takeRun(tx, found, 'mark' in seen ? seen.mark : meta.key, meta.at);
      return taken.ok ? takenOver(taken.value) : refusedFor(taken.problems);
    },
  );
}

/** What a calibration made of a station. */
export const takenOver = (station: Station): ActionResult =>
  saved(
    `Taken over: ε ${station.outletEfficiency.toFixed(2)}, m ${station.multiplier.toFixed(2)}, ${Math.round(100 * station.doubt)} % doubt.`,
  );

/** Readings of a log that are taken: two hours at five a second. */
export const MOST_READINGS = 36_000;

export const badLog = (): ActionResult =>
  refused(`Expected the times and readings of a log, at most ${MOST_READINGS} of each.`, 'badInput');
