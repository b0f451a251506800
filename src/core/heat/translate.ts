import type { Board } from '../board';
import { COARSE_MESH } from './mesh';
import type { HeatPlan, HeatStep } from './plan';
import { simulateHeat } from './simulate';
import { doubtAxes, spreadOf } from './doubt';
import type { Station } from './station';

export interface Translation {
  /** For this station: the dials that give the joints the same history. */
  readonly plan: HeatPlan;
  readonly timesS: readonly number[];
  /** Mean joint temperature of the worked part, theirs and ours, °C. */
  readonly theirsC: readonly number[];
  readonly oursC: readonly number[];
  /** Root mean square of their difference, K. */
  readonly rmsK: number;
  /** One standard deviation of the joint at the end of the air, from what is not known of both stations, K. */
  readonly doubtK: number;
  /** What this station cannot do, in words: the end of a dial, a flow it has not got. */
  readonly limits: readonly string[];
}

/**
 * What nobody's calibrated station may be: the nominal one with a doubt that covers cheap and good ones. Engineering estimate
 * after the spread of settings that practitioners name for one class of part.
 */
export const GUESSED_DOUBT = 0.25;
export const guessed = (station: Station): Station => ({
  ...station,
  name: 'a station nobody knows',
  doubt: GUESSED_DOUBT,
});

/** A coarse mesh is enough: it moves both histories alike. */
const COARSE = { ...COARSE_MESH, frames: false };
/** The first seconds have a dial of their own, so that another lag of the outlet (about 6 s) can be made up for. Engineering estimate. */
const FIRST_S = 15;
/** Wide enough to tell the slope from rounding, narrow enough to be straight; a dial is set in fives. Engineering estimates. */
const PROBE_STEP_C = 20;
const ROUND_TO_C = 5;
const ROUNDS = 3;

/**
 * Someone else's settings for this station: the same joint history, least squares in the dials. Temperatures are almost
 * linear in the dials for fixed flow and height, so a run for each dial gives the slopes and a few rounds correct them.
 */
export function translatePlan(board: Board, theirs: Station, ours: Station, plan: HeatPlan): Translation {
  const history = (station: Station, p: HeatPlan): number[] => jointCurve(board, station, p);
  const theirsC = history(theirs, plan);
  const limits: string[] = [];
  const start = ourSteps(plan, ours, limits);
  let setpointsC = start.steps.flatMap((s) => (s.airSetC === null ? [] : [clamp(s.airSetC, ours.setC)]));
  for (let round = 0; round < ROUNDS; round++) {
    const base = history(ours, withSetpoints(start, setpointsC));
    const slopes = setpointsC.map((setpointC, i) => {
      const moved = history(ours, withSetpoints(start, setpointsC.with(i, setpointC + PROBE_STEP_C)));
      return moved.map((t, k) => (t - base[k]) / PROBE_STEP_C);
    });
    const next = setpointsC.map((setpointC, i) => clamp(setpointC + leastSquares(slopes, base, theirsC)[i], ours.setC));
    const change = Math.max(...next.map((d, i) => Math.abs(d - setpointsC[i])));
    setpointsC = next;
    if (change < 1) break;
  }
  for (const end of ours.setC) if (setpointsC.includes(end)) limits.push(`the dial ends at ${end} °C`);
  const rounded = withSetpoints(
    start,
    setpointsC.map((d) => clamp(Math.round(d / ROUND_TO_C) * ROUND_TO_C, ours.setC)),
  );
  const oursC = history(ours, rounded);
  return {
    plan: rounded,
    timesS: oursC.map((_, k) => k),
    theirsC,
    oursC,
    rmsK: Math.sqrt(oursC.reduce((sum, t, k) => sum + (t - theirsC[k]) ** 2, 0) / oursC.length),
    doubtK: Math.hypot(spreadK(board, theirs, plan, theirsC), spreadK(board, ours, rounded, oursC)),
    limits,
  };
}

/** Mean joint temperature of the worked part at whole seconds. */
function jointCurve(board: Board, station: Station, plan: HeatPlan): number[] {
  const run = simulateHeat(board, station, plan, COARSE)!;
  return [...run.parts.find((p) => p.ref === plan.partRef)!.jointMeanC];
}

/** Their steps with a flow and a nozzle that this station has, the first step of air cut in two. */
function ourSteps(plan: HeatPlan, ours: Station, limits: string[]): HeatPlan {
  const nozzleMm = ours.nozzlesMm.reduce((a, b) => (Math.abs(b - plan.nozzleMm) < Math.abs(a - plan.nozzleMm) ? b : a));
  if (nozzleMm !== plan.nozzleMm) limits.push(`no nozzle of ${plan.nozzleMm} mm: ${nozzleMm} mm is nearest`);
  const steps = plan.steps.flatMap((step): HeatStep[] => {
    if (step.airSetC === null) return [step];
    const flowLpm = Math.round(clamp(step.flowLpm, ours.flowLpm));
    if (Math.abs(flowLpm - step.flowLpm) > 1)
      limits.push(`no flow of ${Math.round(step.flowLpm)} l/min: ${flowLpm} is nearest`);
    if (step.durationS <= 2 * FIRST_S) return [{ ...step, flowLpm }];
    return [
      { ...step, flowLpm, name: 'begin', durationS: FIRST_S },
      { ...step, flowLpm, durationS: step.durationS - FIRST_S },
    ];
  });
  return { ...plan, nozzleMm, steps };
}

const clamp = (x: number, [low, high]: readonly [number, number]): number => Math.min(high, Math.max(low, x));

function withSetpoints(plan: HeatPlan, setpointsC: readonly number[]): HeatPlan {
  let i = 0;
  return { ...plan, steps: plan.steps.map((s) => (s.airSetC === null ? s : { ...s, airSetC: setpointsC[i++] })) };
}

/** Moves of one or two dials that bring `base` nearest to `goal`: the normal equations, written out. */
function leastSquares(
  slopes: readonly (readonly number[])[],
  base: readonly number[],
  goal: readonly number[],
): number[] {
  const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, x, k) => sum + x * b[k], 0);
  const missing = goal.map((g, k) => g - base[k]);
  const [s, t] = slopes;
  if (!t) return [dot(s, missing) / dot(s, s)];
  const [ss, st, tt] = [dot(s, s), dot(s, t), dot(t, t)];
  const determinant = ss * tt - st * st;
  const [sm, tm] = [dot(s, missing), dot(t, missing)];
  return [(tt * sm - st * tm) / determinant, (ss * tm - st * sm) / determinant];
}

/** What the station's doubt makes of the hottest moment, one standard deviation, K. */
function spreadK(board: Board, station: Station, plan: HeatPlan, curve: readonly number[]): number {
  const hottest = curve.indexOf(Math.max(...curve));
  const moved = (other: Station): number => jointCurve(board, other, plan)[hottest] - curve[hottest];
  return spreadOf(doubtAxes(station, plan).map(moved));
}
