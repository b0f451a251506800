import type { Board } from '../board';
import { aimPlan } from './aim';
import type { HeatPlan, HeatStep } from './plan';
import { simulateHeat } from './simulate';
import type { Station } from './station';
import { judgeHeat, type HeatVerdict } from './verdict';

/** How far a plan stays from the limit it comes nearest to. */
export interface Margin {
  /** K; negative where a limit is broken. */
  readonly marginK: number;
  /** The limit that is nearest, in words. */
  readonly fragile: string;
  /** The neighbour whose limit that is, where it is one. */
  readonly ref?: string;
}

export interface FoundPlan extends Margin {
  readonly plan: HeatPlan;
  readonly verdict: HeatVerdict;
  /** Margins with the station one standard deviation weaker and stronger, the dial left as it is, K. */
  readonly underDoubtK: readonly [number, number];
  /** What was changed from the plan that the search began with, in words. */
  readonly changes: readonly string[];
  readonly tried: number;
}

export interface SearchOptions {
  /** Called before each try; return false to stop. */
  readonly onProgress?: (tried: number, most: number) => boolean | void;
}

/** A margin from which on more is not worth a longer search. Engineering estimate. */
const ENOUGH_K = 8;
/** Below this margin covers are tried too. Engineering estimate. */
const LEAST_K = 2;
/** More covers than a hand lays before the air. Engineering estimate. */
const MOST_COVERS = 3;
/** A cover has to win so much to be worth laying. Engineering estimate. */
const COVER_COSTS_K = 1;
/** A change has to help by so much to be worth telling a hand. Engineering estimate. */
const WORTH_K = 0.5;
/** For the spread under the station's doubt, where only the difference counts; its own peaks are off by 3 K at neighbours. */
const COARSE = { fineMm: 1, growth: 1.5, coarsestMm: 5, frames: false } as const;

type Change = (plan: HeatPlan) => HeatPlan;

/**
 * Searches plate, nozzle, flow, height and pace for the plan with the most margin, one setting after the other, each try with
 * its dial aimed anew and judged by the full solver; where that is not enough, covers go over the neighbours that suffer
 * most.
 * @returns undefined when `onProgress` asked to stop.
 */
export function searchPlan(
  board: Board,
  station: Station,
  start: HeatPlan,
  options: SearchOptions = {},
): FoundPlan | undefined {
  const settings = settingsOf(station, start);
  const most = 2 + 2 * settings.reduce((sum, s) => sum + s.length, 0);
  let tried = 0;
  let stopped = false;
  const once = (plan: HeatPlan): Tried | undefined => {
    stopped ||= options.onProgress?.(tried, most) === false;
    if (stopped) return undefined;
    tried += 1;
    const aimed = aimPlan(board, station, plan).plan;
    const verdict = judgeHeat(board, aimed, simulateHeat(board, station, aimed, { frames: false })!);
    const margin = marginOf(verdict);
    return { plan: aimed, verdict, ...margin, score: margin.marginK - COVER_COSTS_K * aimed.covers.length };
  };
  /** The plan, and with the neighbour covered that stands in its way, where that is better. */
  const tryPlan = (plan: HeatPlan): Tried | undefined => {
    let best = once(plan);
    while (best && best.marginK < LEAST_K && best.ref && best.plan.covers.length < MOST_COVERS) {
      if (best.plan.covers.includes(best.ref)) break;
      const covered = once({ ...best.plan, covers: [...best.plan.covers, best.ref] });
      if (!covered || covered.score <= best.score) break;
      best = covered;
    }
    return best;
  };

  let best = tryPlan(start);
  for (const alternatives of settings) {
    if (!best || best.score >= ENOUGH_K) break;
    const from = best.plan;
    for (const change of alternatives) {
      const next = tryPlan(change(from));
      if (next && next.score > best.score + WORTH_K) best = next;
    }
  }
  if (!best || stopped) return undefined;
  const { plan, verdict, marginK, fragile, ref } = best;
  return {
    plan,
    verdict,
    marginK,
    fragile,
    ref,
    underDoubtK: underDoubt(board, station, best),
    changes: changesOf(start, plan),
    tried,
  };
}

interface Tried extends Margin {
  readonly plan: HeatPlan;
  readonly verdict: HeatVerdict;
  /** The margin, less what its covers cost in trouble. */
  readonly score: number;
}

/** The margin with the station one standard deviation weaker and stronger. */
function underDoubt(board: Board, station: Station, { plan, marginK }: Tried): [number, number] {
  const coarse = (multiplier: number): number =>
    marginOf(judgeHeat(board, plan, simulateHeat(board, { ...station, multiplier }, plan, COARSE)!)).marginK;
  const middle = coarse(station.multiplier);
  const under = (sign: number): number => marginK + coarse(station.multiplier * (1 + sign * station.doubt)) - middle;
  return [under(-1), under(1)];
}

/** The nearest of all limits: neighbours, the part's own body, and that its coldest joint melts at all. */
export function marginOf(verdict: HeatVerdict): Margin {
  const limits: Margin[] = [
    { marginK: verdict.coldestPeakC - verdict.liquidusC, fragile: 'the coldest joint only just melts' },
    { marginK: verdict.bodyLimitC - verdict.bodyPeakC, fragile: 'the part’s own body' },
    ...verdict.neighbours.map((n) => ({ marginK: n.limitC - n.peakC, fragile: `${n.ref} ${n.limited}`, ref: n.ref })),
  ];
  return limits.reduce((a, b) => (b.marginK < a.marginK ? b : a));
}

/** What is tried, setting by setting: what helps most first. Round figures that a hand can follow. */
function settingsOf(station: Station, start: HeatPlan): Change[][] {
  return [plates(station, start), WARMTHS, nozzles(station, start), flows(station, start), PACES, HEIGHTS];
}

const eachHot = (plan: HeatPlan, change: (step: HeatStep, i: number) => Partial<HeatStep>): HeatPlan => ({
  ...plan,
  steps: plan.steps.map((s, i) => (s.airSetC === null ? s : { ...s, ...change(s, i) })),
});

/** The plan begins with so many steps that warm the area. */
const WARMING_STEPS = 2;
/** Plates below are often set to 80 to 150 °C. Common practice, no source. */
const PLATES_C = [80, 120, 150];
/** How far one try moves a setting: steps that a hand can tell apart. Engineering estimates. */
const FLOW_SHARES = [0.7, 1.4];
const END_HEIGHTS_MM = [6, 12];
const WARMER_BY_C = 40;
const LONGER_WARMING_S = 20;
const SHORTER_MELT_S = 8;
const LEAST_MELT_S = 10;

function plates({ plate }: Station, start: HeatPlan): Change[] {
  if (!plate) return [];
  return PLATES_C.filter((c) => c <= plate.maxSetC && c !== start.plateSetC).map((plateSetC) => (plan) => ({
    ...plan,
    plateSetC,
  }));
}

function nozzles({ nozzlesMm }: Station, { nozzleMm }: HeatPlan): Change[] {
  const sorted = [...nozzlesMm].sort((a, b) => a - b);
  const at = sorted.indexOf(nozzleMm);
  return [sorted[at - 1], sorted[at + 1]]
    .filter((n) => n !== undefined)
    .map((nozzleMm) => (plan) => ({ ...plan, nozzleMm }));
}

function flows({ flowLpm: [low, high] }: Station, start: HeatPlan): Change[] {
  const now = start.steps[0].flowLpm;
  const flows = FLOW_SHARES.map((share) => Math.min(high, Math.max(low, Math.round((now * share) / 2) * 2)));
  return [...new Set(flows)].filter((f) => f !== now).map((flowLpm) => (plan) => eachHot(plan, () => ({ flowLpm })));
}

/** The last, hottest steps nearer to the board or farther from it. */
const HEIGHTS: Change[] = END_HEIGHTS_MM.map(
  (heightMm) => (plan) => eachHot(plan, (_, i) => (i < WARMING_STEPS ? {} : { heightMm })),
);

/** The warming steps hotter or cooler: the aim then needs less or more of the melt. */
const WARMTHS: Change[] = [WARMER_BY_C, -WARMER_BY_C].map(
  (byC) => (plan) => eachHot(plan, (s, i) => (i < WARMING_STEPS ? { airSetC: s.airSetC! + byC } : {})),
);

/** Longer warming, or less time at high heat. */
const PACES: Change[] = [
  (plan) => eachHot(plan, (s, i) => (i < WARMING_STEPS ? { durationS: s.durationS + LONGER_WARMING_S } : {})),
  (plan) =>
    eachHot(plan, (s, i) =>
      i === WARMING_STEPS ? { durationS: Math.max(LEAST_MELT_S, s.durationS - SHORTER_MELT_S) } : {},
    ),
];

/** What differs from the plan that was begun with, in words; a flow that is the same everywhere is told once. */
function changesOf(start: HeatPlan, found: HeatPlan): string[] {
  const covers = found.covers.filter((ref) => !start.covers.includes(ref));
  const hot = found.steps.filter((s) => s.airSetC !== null);
  const oneFlow = hot.every((s) => s.flowLpm === hot[0].flowLpm);
  const steps = found.steps.flatMap((s, i) => {
    const was = start.steps[i];
    const words = [
      s.airSetC !== was.airSetC && `${s.airSetC} °C`,
      s.durationS !== was.durationS && `${s.durationS} s`,
      !oneFlow && s.flowLpm !== was.flowLpm && `${s.flowLpm} l/min`,
      s.heightMm !== was.heightMm && `${s.heightMm} mm`,
    ].filter((word) => word !== false);
    return words.length > 0 ? [`step ${i + 1} ${words.join(', ')}`] : [];
  });
  return [
    found.plateSetC !== start.plateSetC && `plate at ${found.plateSetC} °C`,
    found.nozzleMm !== start.nozzleMm && `nozzle ${found.nozzleMm} mm`,
    covers.length > 0 && `cover over ${covers.join(', ')}`,
    oneFlow && hot[0].flowLpm !== start.steps[0].flowLpm && `${hot[0].flowLpm} l/min`,
    ...steps,
  ].filter((words) => words !== false);
}
