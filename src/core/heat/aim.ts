import type { Board } from '../board';
import { GOALS_BY_ALLOY, dialRangeC, type HeatGoals } from './goals';
import { COARSE_MESH } from './mesh';
import type { HeatPlan } from './plan';
import { jointWindow } from './purpose';
import { simulateHeat } from './simulate';
import type { Station } from './station';

export interface AimedPlan {
  readonly plan: HeatPlan;
  /** False when the station's dial ends before the aim is reached. */
  readonly reached: boolean;
}

/** A coarse mesh is enough to aim with: it moves the peak by under 1 K (measured on the demo boards), and the full run judges the plan. */
const COARSE = { ...COARSE_MESH, frames: false };
const PROBE_STEP_C = 30;
const ROUND_TO_C = 5;
const MOST_CORRECTIONS = 2;

/**
 * Sets the dial of the hottest steps so that the coldest joint peaks at the aim. Temperatures are almost linear in the
 * set points for fixed flow and height, so two runs give the slope and a third or fourth corrects it.
 */
export function aimPlan(
  board: Board,
  station: Station,
  plan: HeatPlan,
  goals: HeatGoals = GOALS_BY_ALLOY[plan.alloy],
): AimedPlan {
  const hottestC = Math.max(...plan.steps.map((s) => s.airSetC ?? 0));
  if (hottestC === 0) return { plan, reached: false };
  const [lowC, highC] = dialRangeC(station, goals);
  const { reachC, aimOverK } = jointWindow(plan, goals);
  const goalC = reachC + aimOverK;
  const withDial = (dialC: number): HeatPlan => ({
    ...plan,
    steps: plan.steps.map((s) =>
      s.airSetC === hottestC
        ? { ...s, airSetC: dialC }
        : s.airSetC === null
          ? s
          : { ...s, airSetC: Math.min(s.airSetC, dialC) },
    ),
  });
  const peakC = (dialC: number): number => {
    const run = simulateHeat(board, station, withDial(dialC), COARSE)!;
    return run.parts.find((p) => p.ref === plan.partRef)!.jointMinC.reduce((a, b) => Math.max(a, b), 0);
  };
  let from = { dialC: hottestC, peakC: peakC(hottestC) };
  let to = { dialC: hottestC + PROBE_STEP_C, peakC: peakC(hottestC + PROBE_STEP_C) };
  for (let i = 0; i < MOST_CORRECTIONS; i++) {
    const slope = (to.peakC - from.peakC) / (to.dialC - from.dialC);
    const dialC = Math.min(highC, Math.max(lowC, to.dialC + (goalC - to.peakC) / slope));
    if (Math.abs(dialC - to.dialC) < 1) break;
    [from, to] = [to, { dialC, peakC: peakC(dialC) }];
  }
  const dialC = Math.min(highC, Math.round(to.dialC / ROUND_TO_C) * ROUND_TO_C);
  return { plan: withDial(dialC), reached: to.peakC >= goalC - ROUND_TO_C };
}
