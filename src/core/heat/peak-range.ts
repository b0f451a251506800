import type { Board } from '../board';
import { WITHIN_SDS } from '../math';
import { doubtAxes, spreadOf } from './doubt';
import { COARSE_MESH } from './mesh';
import type { HeatPlan } from './plan';
import { boardsInDoubt } from './purpose';
import { simulateHeat, type RunOptions } from './simulate';
import type { Station } from './station';

/** The coldest joint's peak with all that is not known of station, board and model. */
export interface PeakRange {
  readonly peakC: number;
  /** One standard deviation, K, and what it is made of. */
  readonly sdK: number;
  readonly stationK: number;
  readonly boardK: number;
  readonly modelK: number;
  /** 95 of 100 such plans peak between these, °C. */
  readonly low95C: number;
  readonly high95C: number;
}

/**
 * The range that the worked part's coldest joint peaks in under a plan: the full solver for the middle, the coarse mesh for what
 * each direction of doubt changes.
 */
export function peakRange(board: Board, station: Station, plan: HeatPlan): PeakRange {
  const peak = (on: Station, of: Board, options: RunOptions): number => {
    const run = simulateHeat(of, on, plan, { ...options, frames: false })!;
    return run.parts.find((p) => p.ref === plan.partRef)!.jointMinC.reduce((a, b) => Math.max(a, b));
  };
  const peakC = peak(station, board, {});
  const coarse = peak(station, board, COARSE_MESH);
  const stationK = spreadOf(doubtAxes(station, plan).map((on) => peak(on, board, COARSE_MESH) - coarse));
  // Lighter and heavier by one standard deviation: the larger of the two.
  const boardK = Math.max(
    0,
    ...boardsInDoubt(board).map((other) => Math.abs(peak(station, other, COARSE_MESH) - coarse)),
  );
  const modelK = spreadOf([], peakC - plan.ambientC);
  const sdK = Math.hypot(stationK, boardK, modelK);
  return { peakC, sdK, stationK, boardK, modelK, low95C: peakC - WITHIN_SDS * sdK, high95C: peakC + WITHIN_SDS * sdK };
}
