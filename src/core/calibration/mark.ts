import {
  COARSE_MESH,
  STATION_UNKNOWNS,
  covarianceOf,
  crossing,
  doubtDirections,
  movedBy,
  simulateHeat,
  unknownsOf,
  type HeatPlan,
  type Station,
} from '../heat';
import type { Board } from '../board';
import { ALLOYS } from '../joints';
import { fail, ok, type Result } from '../result';
import { calibrationOf, type Calibration } from './fit';

/** What a real job's mark says: "all joints molten at 41 s". */
export interface MarkAnswer {
  readonly computedS: number;
  readonly seenS: number;
  /** Seen less computed in standard deviations of both doubts. */
  readonly residualSds: number;
  readonly calibration: Calibration;
}

/** A hand sees a chip slide within so much of the time, and so many seconds. Engineering estimate. */
const SEEN_SHARE = 0.05;
const SEEN_S = 2;
/** The moved runs need only the difference. */
const COARSE = { ...COARSE_MESH, frames: false };

/**
 * One step of the Kalman filter: the mark of a run moves what is not known of the station as far as its doubt and the mark's own
 * allow, along the directions of its covariance.
 * Refused where the run never melts in the computation: there is no time to compare.
 */
export function calibrationFromMark(board: Board, station: Station, plan: HeatPlan, seenS: number): Result<MarkAnswer> {
  const molten = (on: Station): number | null => {
    const run = simulateHeat(board, on, plan, COARSE)!;
    const worked = run.parts.find((p) => p.ref === plan.partRef)!;
    return crossing(run.timesS, worked.jointMinC, ALLOYS[plan.alloy].liquidusC);
  };
  const computedS = molten(station);
  if (computedS === null)
    return fail(
      `Expected a plan that melts ${plan.partRef} on this station, to compare with; got one that never does.`,
    );
  const directions = doubtDirections(station);
  // Towards a station that melts later or, where that one never does, one that melts earlier.
  const later = directions.map((_, k) => {
    const along = (sign: 1 | -1): number | null =>
      molten(
        movedBy(
          station,
          directions,
          directions.map((_, j) => (j === k ? sign : 0)),
        ),
      );
    const up = along(1);
    if (up !== null) return up - computedS;
    const down = along(-1);
    return down === null ? 0 : computedS - down;
  });
  const own = (SEEN_SHARE * seenS) ** 2 + SEEN_S ** 2;
  const total = own + later.reduce((sum, l) => sum + l * l, 0);
  const off = seenS - computedS;
  const shared = STATION_UNKNOWNS.map((_, i) => directions.reduce((sum, d, k) => sum + d[i] * later[k], 0));
  const before = covarianceOf(station);
  const covariance = before.map((row, i) => row.map((v, j) => v - (shared[i] * shared[j]) / total));
  const here = unknownsOf(station);
  return ok({
    computedS,
    seenS,
    residualSds: off / Math.sqrt(total),
    calibration: calibrationOf(
      station,
      STATION_UNKNOWNS.map((name, i) => here[name] + (shared[i] / total) * off),
      covariance,
      { misfit: Math.abs(off) / Math.sqrt(total), observations: 1 },
    ),
  });
}
