import { fitStation, trialSchema, type CalibrationRecord } from '../../core/calibration';
import { stationSchema, type Station } from '../../core/heat';
import type { Database } from '../../db/client';
import { findStation, listCalibrations, listStations, saveStation, takeCalibration } from '../../db/library';
import type { UnreadableRow } from '../../db/readable';
import type { Session } from '../../db/session';
import { firstIssue, refused, refusedFor, type ActionResult } from '../action-result';
import { takenOver } from '../calibrate-from-run';
import { keep, oncePrepared } from '../once';

/** Fits the trials again here, and makes what they say the station's own. */
export async function keepCalibration(
  db: Database,
  stationId: string,
  input: unknown,
  key: string,
): Promise<ActionResult> {
  const trials = trialSchema.array().min(1).max(60).safeParse(input);
  if (!trials.success)
    return refused(`Expected trials of the coupon; ${firstIssue(trials.error).message}.`, 'badInput');
  const flows = [...new Set(trials.data.flatMap((t) => (t.kind === 'fixedPoint' ? [] : [t.flowLpm])))];
  if (flows.length > 1)
    return refused(
      `Expected trials at one flow; got ${flows.join(' and ')} l/min. Calibrate flow by flow.`,
      'badInput',
    );
  return oncePrepared(
    db,
    { key, scope: `station ${stationId}`, request: trials.data },
    async (before) => {
      const station = await findStation(before, stationId);
      return station && fitStation(station, trials.data);
    },
    async (tx, { at }, fit) => {
      if (!fit) return refused(`Expected a station of this bench; there is no "${stationId}".`, 'notFound');
      if (!fit.ok) return refusedFor(fit.problems);
      const record = { at, flowLpm: flows[0], trials: trials.data.length, calibration: fit.value };
      return takenOver((await takeCalibration(tx, stationId, record, key))!);
    },
  );
}

/** Adds a station, or changes what is not calibrated of one: its name, nozzles, dials, flows and plate. */
export async function keepStation(db: Database, input: unknown): Promise<ActionResult> {
  const parsed = stationSchema.safeParse(input);
  if (!parsed.success) {
    const { at, message } = firstIssue(parsed.error);
    return refused(`Expected a station with ranges of dial and flow; ${at}: ${message}.`, 'badInput');
  }
  const { setC, flowLpm, name } = parsed.data;
  if (setC[0] >= setC[1] || flowLpm[0] >= flowLpm[1])
    return refused(
      `Expected ranges from low to high; got ${setC.join(' to ')} °C and ${flowLpm.join(' to ')} l/min.`,
      'badInput',
    );
  return keep(db, `station ${parsed.data.id}`, async (tx) => {
    await saveStation(tx, parsed.data);
    return `Kept: ${name}.`;
  });
}

export interface KnownStation {
  readonly station: Station;
  readonly history: readonly CalibrationRecord[];
}

export async function loadStation(db: Session, id: string): Promise<KnownStation | undefined> {
  const station = await findStation(db, id);
  return station && { station, history: await listCalibrations(db, id) };
}

/** Every station with its history; what cannot be read is marked. */
export async function loadAllStations(
  db: Session,
): Promise<{ readonly stations: KnownStation[]; readonly unreadable: readonly UnreadableRow[] }> {
  const unreadable: UnreadableRow[] = [];
  const stations: KnownStation[] = [];
  for (const station of await listStations(db, unreadable))
    stations.push({ station, history: await listCalibrations(db, station.id, unreadable) });
  return { stations, unreadable };
}
