import {
  COARSE_MESH,
  EFFICIENCY_SHARE,
  crossing,
  simulateHeat,
  withMultiplier,
  type HeatPlan,
  type Station,
} from '../heat';
import type { Board } from '../board';
import { ALLOYS } from '../joints';
import { fail, ok, type Result } from '../result';
import { BEFORE, type Calibration } from './fit';

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
/** A mark says nothing of entrainment and lag: they keep the spread that they have before any trial. */
const { spreadDiameters: ENTRAINMENT, outletLagS: LAG } = BEFORE;
/** Shares by which efficiency and multiplier are moved to see what they do. */
const PROBE = 0.02;
/** The moved runs need only the difference. */
const COARSE = { ...COARSE_MESH, frames: false };

/**
 * One step of the Kalman filter: the mark of a run moves efficiency and multiplier as far as their doubt and the mark's own
 * allow. Refused where the run never melts in the computation: there is no time to compare.
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
  const { outletEfficiency: e, multiplier: m, doubt } = station;
  const slope = (on: Station, by: number): number => ((molten(on) ?? computedS) - computedS) / by;
  const bySlope = [
    slope({ ...station, outletEfficiency: e * (1 + PROBE) }, e * PROBE),
    slope(withMultiplier(station, m * (1 + PROBE)), m * PROBE),
  ];
  const variance = [(EFFICIENCY_SHARE * doubt * e) ** 2, (doubt * m) ** 2];
  const own = (SEEN_SHARE * seenS) ** 2 + SEEN_S ** 2;
  const total = own + bySlope[0] ** 2 * variance[0] + bySlope[1] ** 2 * variance[1];
  const gain = bySlope.map((s, k) => (s * variance[k]) / total);
  const off = seenS - computedS;
  const after = variance.map((v, k) => v * (1 - gain[k] * bySlope[k]));
  const shared = -(gain[0] * bySlope[1] * variance[1]);
  return ok({
    computedS,
    seenS,
    residualSds: off / Math.sqrt(total),
    calibration: {
      outletEfficiency: { value: e + gain[0] * off, sd: Math.sqrt(after[0]) },
      multiplier: { value: m + gain[1] * off, sd: Math.sqrt(after[1]) },
      spreadDiameters: { value: station.spreadDiameters, sd: ENTRAINMENT.sd },
      outletLagS: { value: station.outletLagS, sd: LAG.sd },
      correlation: shared / Math.sqrt(after[0] * after[1]),
      misfit: Math.abs(off) / Math.sqrt(total),
      observations: 1,
    },
  });
}
