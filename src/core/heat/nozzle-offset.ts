import type { Board } from '../board';
import { dialGroups, leastOf, marginsInOrder } from './family';
import type { HeatGoals } from './goals';
import type { Margin } from './margin';
import { maximinLp } from './maximin-lp';
import { COARSE_MESH } from './mesh';
import { MOST_OFFSET_MM, type HeatPlan } from './plan';
import { simulateHeat } from './simulate';
import type { Station } from './station';
import { judgeHeat, type HeatVerdict } from './verdict';

/** What one step moves at most, and to what a hand can follow it. Engineering estimates. */
const STEP_MM = 1.5;
const STEP_C = 40;
const ROUND_TO_MM = 0.5;
const ROUND_TO_C = 5;
/** How far a setting is moved to see what it does. */
const PROBE_MM = 1;
const PROBE_C = 10;
/** No step is taken for less, K of margin. */
const WORTH_K = 0.2;
/** The search goes no further beside the middle than a hand can judge by eye. Engineering estimate. */
const MOST_SEARCHED_MM = 3;

/** So many steps, each from where the one before came to, as the full solver judges. */
const STEPS = 2;

/**
 * The plan with its nozzle beside the middle of the part, where that spares what binds it.
 * @param tried a plan with its verdict by the full solver.
 * @returns a plan whose dials and durations are still to be gone through; undefined where nothing is to be gained.
 */
export function offsetPlan(
  board: Board,
  station: Station,
  tried: { readonly plan: HeatPlan; readonly verdict: HeatVerdict },
  goals: HeatGoals,
): HeatPlan | undefined {
  let best = tried;
  for (let k = 0; k < STEPS; k++) {
    const plan = offsetStep(board, station, best, goals);
    if (!plan) break;
    best = { plan, verdict: judgeHeat(board, plan, simulateHeat(board, station, plan, { frames: false })!, goals) };
  }
  return best === tried ? undefined : best.plan;
}

/**
 * The plan with its nozzle moved beside the middle and its dials with it, so that the least margin grows most: every limit is
 * followed along straight lines, whose slopes come from runs on a coarse mesh.
 * @param from a plan with its verdict by the full solver.
 * @returns undefined where no step is worth it.
 */
function offsetStep(
  board: Board,
  station: Station,
  { plan, verdict }: { readonly plan: HeatPlan; readonly verdict: HeatVerdict },
  goals: HeatGoals,
): HeatPlan | undefined {
  if (plan.purpose === 'partBoards') return undefined;
  const coarse = (p: HeatPlan): Margin[] =>
    marginsInOrder(judgeHeat(board, p, simulateHeat(board, station, p, { ...COARSE_MESH, frames: false })!, goals));
  const here = coarse(plan);
  const groups = dialGroups(plan);
  const setpointsC = Array.from(
    { length: Math.max(...groups) + 1 },
    (_, g) => plan.steps.find((_, i) => groups[i] === g)!.airSetC!,
  );
  const moved = (byC: readonly number[], [x, y]: readonly [number, number]): HeatPlan => ({
    ...plan,
    offsetMm: [plan.offsetMm[0] + x, plan.offsetMm[1] + y],
    steps: plan.steps.map((s, i) =>
      s.airSetC === null ? s : { ...s, airSetC: setpointsC[groups[i]] + byC[groups[i]] },
    ),
  });
  const still = setpointsC.map(() => 0);
  const slopesOf = (p: HeatPlan, by: number): number[] => coarse(p).map((m, i) => (m.marginK - here[i].marginK) / by);
  const [low, high] = station.setC;
  const probes = setpointsC.map((setpointC) => (setpointC + PROBE_C > high ? -PROBE_C : PROBE_C));
  const slopes = [
    ...probes.map((by, g) => slopesOf(moved(still.with(g, by), [0, 0]), by)),
    slopesOf(moved(still, [PROBE_MM, 0]), PROBE_MM),
    slopesOf(moved(still, [0, PROBE_MM]), PROBE_MM),
  ];
  const values = marginsInOrder(verdict).map((m) => m.marginK);
  const move = maximinLp(
    values,
    slopes,
    [
      ...setpointsC.map((d): [number, number] => [Math.max(low - d, -STEP_C), Math.min(high - d, STEP_C)]),
      ...plan.offsetMm.map((mm): [number, number] => [
        Math.max(-STEP_MM, -MOST_SEARCHED_MM - mm),
        Math.min(STEP_MM, MOST_SEARCHED_MM - mm),
      ]),
    ],
    setpointsC.slice(1).map((d, g) => d - setpointsC[g]),
  );
  const round = (value: number, to: number): number => Math.round(value / to) * to;
  const [x, y] = move.slice(setpointsC.length).map((by, k) => round(plan.offsetMm[k] + by, ROUND_TO_MM));
  const promised = Math.min(...values.map((v, i) => v + move.reduce((sum, by, k) => sum + by * slopes[k][i], 0)));
  const least = leastOf(marginsInOrder(verdict)).marginK;
  if (promised - least < WORTH_K || (x === plan.offsetMm[0] && y === plan.offsetMm[1])) return undefined;
  const next = moved(
    setpointsC.map((d, g) => Math.min(high, Math.max(low, round(d + move[g], ROUND_TO_C))) - d),
    [0, 0],
  );
  return { ...next, offsetMm: [clamped(x), clamped(y)] };
}

/** Kept within what a plan may hold; never a negative zero. */
const clamped = (mm: number): number => Math.min(MOST_OFFSET_MM, Math.max(-MOST_OFFSET_MM, mm)) + 0;
