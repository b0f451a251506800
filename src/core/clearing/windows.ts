import type { Board } from '../board';
import {
  COARSE_MESH,
  judgeHeat,
  simulateHeat,
  doubtAxes,
  type HeatGoals,
  type HeatPlan,
  type HeatVerdict,
  type Station,
} from '../heat';

/** A time with the range that the station's doubt leaves it, s; null where it may never come. */
export interface DoubtfulTime {
  readonly usualS: number | null;
  readonly earliestS: number | null;
  readonly latestS: number | null;
}

export interface DoubtfulWindow {
  readonly verdict: HeatVerdict;
  /** When the coldest joint gets there, and when the hand has to stop. */
  readonly from: DoubtfulTime;
  readonly until: DoubtfulTime;
  /** The window that holds whatever the station is within its doubt, s; null where there is none. */
  readonly sure: readonly [number, number] | null;
}

/**
 * The window of a plan for lifting or clearing, with what the station's doubt makes of it: the same plan on the stations
 * that this one may be, one standard deviation either way. The times differ on a coarse mesh; the usual ones are fine.
 */
export function windowInDoubt(board: Board, station: Station, plan: HeatPlan, goals?: HeatGoals): DoubtfulWindow {
  const judged = (on: Station, mesh: object): HeatVerdict =>
    judgeHeat(board, plan, simulateHeat(board, on, plan, { ...mesh, frames: false })!, goals);
  const verdict = judged(station, {});
  const coarse = judged(station, COARSE_MESH);
  const others = doubtAxes(station, plan).map((on) => judged(on, COARSE_MESH));
  const from = spread(
    verdict.reachedAtS,
    coarse.reachedAtS,
    others.map((o) => o.reachedAtS),
  );
  const until = spread(
    verdict.untilS,
    coarse.untilS,
    others.map((o) => o.untilS),
  );
  const sure =
    from.latestS !== null && until.earliestS !== null && until.earliestS > from.latestS
      ? ([from.latestS, until.earliestS] as const)
      : null;
  return { verdict, from, until, sure };
}

/** A station that never gets there leaves the latest moment open. */
function spread(usualS: number | null, coarseS: number | null, othersS: readonly (number | null)[]): DoubtfulTime {
  if (usualS === null || coarseS === null) return { usualS, earliestS: null, latestS: null };
  const known = othersS.filter((s) => s !== null).map((s) => s - coarseS);
  const sdS = Math.hypot(...known);
  return { usualS, earliestS: usualS - sdS, latestS: known.length < othersS.length ? null : usualS + sdS };
}
