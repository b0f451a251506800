import type { Board } from '../board';
import {
  COARSE_MESH,
  LIFT_AFTER_S,
  judgeHeat,
  simulateHeat,
  withCopper,
  type HeatCurves,
  type HeatGoals,
  type HeatPlan,
  type HeatStep,
  type HeatVerdict,
  type Station,
} from '../heat';
import { formatTempC } from '../units';
import { knownBefore, takeSight, type RunKnowledge, type Seen, type Sight } from './sights';

/** How a run goes on after what was seen. */
export type Correction = { readonly knowledge: RunKnowledge; readonly message: string } & (
  | {
      /** Goes on with other steps: those that were flown, then what is new. */
      readonly kind: 'goOn';
      readonly plan: HeatPlan;
      /** Index of the first new step. */
      readonly step: number;
      readonly setC: number;
      /** Seconds from now to the next nudge. */
      readonly nudgeInS: number;
    }
  /** It swims: lift now. */
  | { readonly kind: 'lift' }
  /** Air away; nothing that may still be raised melts it before a limit. */
  | { readonly kind: 'stop' }
);

/** What a correction starts from. */
export interface RunNow {
  readonly board: Board;
  readonly station: Station;
  readonly goals: HeatGoals;
  /** The plan as it runs, corrections included. */
  readonly plan: HeatPlan;
  /** What was learned by earlier sights of this run; without it, only the station's own doubt. */
  readonly knowledge?: RunKnowledge;
}

/** The air is raised by no more at once: practitioners go up in steps of ten or twenty. Common practice, no source. */
const RAISES_C = [0, 10, 20, 30];
/** A nudge is not put off further, s. Engineering estimate. */
const MOST_WAIT_S = 60;
/** The nudge waits until the coldest joint is molten by so many deviations; limits are kept by as many as it melts. Estimate. */
const SURE_SDS = 1;
/** From the nudge to the part off and the air away, s. */
const NUDGE_S = 5;
const COOLS_S = 30;
const COARSE = { ...COARSE_MESH, frames: false };

/**
 * Takes in what the hand saw at a moment of a run, and computes how the run goes on: the air as it is or raised in a safe step,
 * until the coldest joint is molten in all but one station of six that this may be, with the neighbours' limits kept by as much.
 * Where none does, the air goes away.
 */
export function correctRun(now: RunNow, sight: Sight): Correction {
  const { board, plan, station } = now;
  const flown = flownUntil(plan, sight.heatS);
  const seen = takeSight(board, now.knowledge ?? knownBefore(station), flown, sight);
  const { knowledge } = seen;
  switch (sight.seen) {
    case 'swims':
      return { kind: 'lift', knowledge, message: `${plan.partRef} swims: lift it now, straight up, then air away.` };
    case 'neighbourMoves':
      return {
        kind: 'stop',
        knowledge,
        message: `${sight.ref ?? 'A neighbour'} moves: air away now, touch nothing until it has frozen. It is hotter there than computed; cover it before the next run.`,
      };
    case 'browns':
      return {
        kind: 'stop',
        knowledge,
        message: `${plan.partRef} browns: air away now. Its body is hotter than computed; the next run goes slower, with a plate below.`,
      };
    case 'stuck':
      return afterStuck(now, flown, sight, seen);
  }
}

/** A way to go on, and what it keeps. */
interface Way {
  readonly setC: number;
  readonly nudgeS: number;
  readonly slackK: number;
  readonly nearest: string;
}

function afterStuck({ board, goals, plan }: RunNow, flown: HeatPlan, { heatS }: Sight, seen: Seen): Correction {
  const { knowledge } = seen;
  const known = withCopper(board, knowledge.copper);
  const hot = flown.steps[flown.steps.length - 1];
  const maxC = Math.min(knowledge.station.setC[1], goals.dialLimitC ?? Infinity);
  const raises = RAISES_C.map((by) => hot.airSetC! + by).filter((setC) => setC <= maxC);
  const ways = raises
    .map((setC) => wayAt(known, goals, flown, { ...hot, airSetC: setC, durationS: MOST_WAIT_S }, seen))
    .filter((way) => way !== undefined);
  const best = ways.reduce<Way | undefined>((a, b) => (a && a.slackK >= b.slackK ? a : b), undefined);
  const stays = `Not swimming at ${Math.round(heatS)} s: do not pull.`;
  if (!best)
    return {
      kind: 'stop',
      knowledge,
      message: `${stays} Air away, let it freeze. Within ${MOST_WAIT_S} s no air up to ${maxC} °C melts it; a plate below or a wider nozzle does.`,
    };
  if (best.slackK < 0)
    return {
      kind: 'stop',
      knowledge,
      message: `${stays} Air away, let it freeze. Before ${plan.partRef} melts, ${best.nearest}.`,
    };
  const nudgeInS = Math.ceil(best.nudgeS - heatS);
  const raised = best.setC - hot.airSetC!;
  const what = raised > 0 ? `Air to ${best.setC} °C` : 'The same air';
  return {
    kind: 'goOn',
    knowledge,
    plan: { ...plan, steps: [...flown.steps, ...stepsOn(hot, best.setC, nudgeInS), coolingOf(plan)] },
    step: flown.steps.length,
    setC: best.setC,
    nudgeInS,
    message: `${stays} ${what}: touch it lightly all along, nudge again in ${nudgeInS} s.`,
  };
}

/** The steps of the plan as they were flown up to a moment; beyond its hot steps the last of them goes on. */
export function flownUntil(plan: HeatPlan, heatS: number): HeatPlan {
  const hot = plan.steps.filter((s) => s.airSetC !== null);
  const steps: HeatStep[] = [];
  let left = Math.max(1, Math.round(heatS));
  for (const [i, step] of hot.entries()) {
    if (left <= 0) break;
    const durationS = i === hot.length - 1 ? left : Math.min(left, step.durationS);
    steps.push({ ...step, durationS });
    left -= durationS;
  }
  return { ...plan, steps };
}

/** Waits under the air, then the nudge on a card of its own. */
const stepsOn = (hot: HeatStep, airSetC: number, nudgeInS: number): HeatStep[] => [
  { ...hot, name: 'on to the melt', airSetC, durationS: Math.max(1, nudgeInS) },
  { ...hot, name: 'nudge and lift', airSetC, durationS: NUDGE_S },
];

const coolingOf = ({ steps }: HeatPlan): HeatStep =>
  steps.find((s) => s.airSetC === null) ?? {
    ...steps[steps.length - 1],
    ...{ name: 'air off', airSetC: null, durationS: COOLS_S },
  };

/** When the nudge is due under an air, and how far the limits are away until the part is off; undefined where it never is. */
function wayAt(board: Board, goals: HeatGoals, flown: HeatPlan, on: HeatStep, seen: Seen): Way | undefined {
  const plan = { ...flown, steps: [...flown.steps, on] };
  const run = simulateHeat(board, seen.knowledge.station, plan, COARSE)!;
  const flownS = flown.steps.reduce((sum, s) => sum + s.durationS, 0);
  const worked = run.parts.find((p) => p.ref === flown.partRef)!;
  const verdictOf = (toS: number): HeatVerdict => judgeHeat(board, plan, until(run, toS), goals);
  const { reachC } = verdictOf(Infinity);
  const from = (levelC: number): number => worked.jointMinC.findIndex((t, i) => run.timesS[i] > flownS && t >= levelC);
  const [melts, sure] = [from(reachC), from(reachC + SURE_SDS * seen.coldestSdK)];
  if (melts < 0 || sure < 0) return undefined;
  // The hand touches it all along, so that it comes off as it melts.
  const verdict = verdictOf(run.timesS[melts] + LIFT_AFTER_S);
  const kept = [
    ...verdict.neighbours.map((n) => ({ ref: n.ref, what: n.limited, peakC: n.peakC, limitC: n.limitC })),
    { ref: flown.partRef, what: 'body', peakC: verdict.bodyPeakC, limitC: verdict.bodyLimitC },
  ].map((k) => ({ ...k, slackK: k.limitC - k.peakC - SURE_SDS * (seen.besideSdK.get(k.ref) ?? 0) }));
  const nearest = kept.reduce((a, b) => (b.slackK < a.slackK ? b : a));
  return {
    setC: on.airSetC!,
    nudgeS: run.timesS[sure] + LIFT_AFTER_S,
    slackK: nearest.slackK,
    nearest: `${nearest.ref} ${nearest.what} may pass ${formatTempC(nearest.limitC)}: ${nearest.ref === flown.partRef ? 'slower, with a plate below' : 'cover it, or heat from below'}`,
  };
}

/** A run's curves up to a moment. */
const until = (run: HeatCurves, toS: number): HeatCurves => {
  const end = run.timesS.findIndex((t) => t > toS);
  if (end < 0) return run;
  const cut = (series: Float32Array): Float32Array => series.subarray(0, end);
  return {
    timesS: cut(run.timesS),
    parts: run.parts.map((p) => ({
      ...p,
      jointMinC: cut(p.jointMinC),
      jointMeanC: cut(p.jointMeanC),
      jointMaxC: cut(p.jointMaxC),
      bodyMaxC: cut(p.bodyMaxC),
    })),
  };
};
