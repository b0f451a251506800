import type { PartRef } from '../identities';
import { partByRef, type Board } from '../board';
import { GOALS_BY_ALLOY, type HeatGoals } from './goals';
import { maximinLp } from './maximin-lp';
import { limitsOf, type Margin } from './margin';
import { COARSE_MESH, type MeshOptions } from './mesh';
import type { HeatPlan } from './plan';
import { reduceFamily } from './reduced';
import { ReducedRunner } from './reduced-runner';
import { simulateHeat } from './simulate';
import type { Station } from './station';
import { isJudged, judgeHeat, type HeatVerdict } from './verdict';

/** A cover has to win so much to be worth laying, and so much it is worth that a limit is kept at all. Engineering estimates. */
const COVER_COSTS_K = 1;
/** What a nozzle beside the middle, which a hand has to judge by eye, has to win. Engineering estimate. */
const OFFSET_COSTS_K = 0.5;
const BROKEN_COSTS_K = 4;

export interface Tried extends Margin {
  readonly plan: HeatPlan;
  /** By the full solver. */
  readonly verdict: HeatVerdict;
  /** The margin, less what its covers and a nozzle beside the middle cost in trouble and what a broken limit does. */
  readonly score: number;
  /** Runs of the reduced model and of the full solver. */
  readonly runs: number;
}

export const scoreOf = ({ marginK, plan }: { marginK: number; plan: HeatPlan }): number =>
  marginK -
  COVER_COSTS_K * plan.covers.length -
  (plan.offsetMm.some((mm) => mm !== 0) ? OFFSET_COSTS_K : 0) -
  (marginK < 0 ? BROKEN_COSTS_K : 0);

/** Durations tried, s: of each warming step, and of the melt. Spans that a hand keeps; engineering estimates. */
const WARM_S = [20, 40, 60];
const MELT_S = [12, 18, 22, 26, 36];
/** The plan begins with so many steps that warm the area. */
export const WARMING_STEPS = 2;
const ROUND_TO_C = 5;

export interface FamilyOptions {
  readonly goals?: HeatGoals;
  /** Looks at few durations, to tell good settings from poor ones; otherwise at all, and on by single steps until none helps. */
  readonly quick?: boolean;
}

/** The reduced model of a plan's family without the parts that have no limit: they are most of a run's time. */
export function judgedRunner(board: Board, station: Station, plan: HeatPlan, mesh: MeshOptions): ReducedRunner {
  const model = reduceFamily(board, station, plan, mesh);
  const counts = (ref: PartRef): boolean => ref === plan.partRef || isJudged(board, plan, partByRef(board, ref)!);
  return new ReducedRunner({ ...model, parts: model.parts.filter((p) => counts(p.ref)) });
}

/** All limits of a plan, in one order for every plan, so that margins can be compared limit by limit. */
type Margins = (plan: HeatPlan) => Margin[];

export const marginsInOrder = (verdict: HeatVerdict): Margin[] =>
  limitsOf({ ...verdict, neighbours: [...verdict.neighbours].sort((a, b) => (a.ref < b.ref ? -1 : 1)) });

/** Single steps on the full solver: fewer, since each plan costs a full run. */
const FULL_POLISHES = 6;

const inFull = (board: Board, station: Station, plan: HeatPlan, goals: HeatGoals): HeatVerdict =>
  judgeHeat(board, plan, simulateHeat(board, station, plan, { frames: false })!, goals);

/** Climbs by single steps of dials and durations, each judged by the full solver. */
export function polishedInFull(
  board: Board,
  station: Station,
  plan: HeatPlan,
  goals: HeatGoals,
): { plan: HeatPlan; verdict: HeatVerdict } {
  const verdicts = new Map<HeatPlan, HeatVerdict>();
  const margins: Margins = (p) => {
    const verdict = inFull(board, station, p, goals);
    verdicts.set(p, verdict);
    return marginsInOrder(verdict);
  };
  const best = polished(station, { plan, ...leastOf(margins(plan)) }, margins, FULL_POLISHES);
  return { plan: best.plan, verdict: verdicts.get(best.plan)! };
}

/** The coarse model is put right by the full solver so often, unless it already says the same. */
const CORRECTIONS = 2;
const SAYS_THE_SAME_K = 0.3;

/**
 * The dials and durations with the most margin for settings that stay as they are. The climb goes over the reduced model on
 * a coarse mesh; what the full solver finds at its top is added to that model, limit by limit, and the climb goes on from
 * there (output space mapping; Bandler et al., IEEE Trans. MTT 42, 1994, from memory). The margin told is the full solver's.
 */
export function bestInFamily(
  board: Board,
  station: Station,
  plan: HeatPlan,
  { goals = GOALS_BY_ALLOY[plan.alloy], quick = false }: FamilyOptions = {},
): Tried {
  const runner = judgedRunner(board, station, plan, COARSE_MESH);
  let runs = 0;
  const onCoarse: Margins = (p) => {
    runs += 1;
    return marginsInOrder(judgeHeat(board, p, runner.run(p), goals));
  };
  let offsets: number[] | undefined;
  const margins: Margins = (p) => onCoarse(p).map((m, i) => ({ ...m, marginK: m.marginK + (offsets?.[i] ?? 0) }));
  const climb = (from: HeatPlan, changes: readonly Change[]): Best => {
    let top = bestDials(station, from, margins);
    for (const change of changes) {
      const next = bestDials(station, change(top.plan), margins, QUICK_ROUNDS);
      if (next.marginK > top.marginK) top = next;
    }
    return quick ? top : polished(station, top, margins);
  };
  let top = quick ? climb(plan, QUICK_DURATIONS) : { plan, ...leastOf(margins(plan)) };
  let best: Omit<Tried, 'score' | 'runs'> | undefined;
  for (let k = 0; ; k++) {
    const verdict = inFull(board, station, top.plan, goals);
    runs += 1;
    const list = marginsInOrder(verdict);
    const found = leastOf(list);
    if (!best || found.marginK > best.marginK) best = { plan: top.plan, verdict, ...found };
    const same = Math.abs(found.marginK - top.marginK) < SAYS_THE_SAME_K;
    if (k === CORRECTIONS || (same && (quick || k > 0))) break;
    offsets = onCoarse(top.plan).map((m, i) => list[i].marginK - m.marginK);
    top = climb(best.plan, quick || k > 0 ? [] : DURATIONS);
  }
  return { ...best, score: scoreOf(best), runs };
}

const lasting = (plan: HeatPlan, index: number, durationS: number): HeatPlan => ({
  ...plan,
  steps: plan.steps.map((s, i) => (i === index && s.airSetC !== null ? { ...s, durationS } : s)),
});

/** Durations are looked at with few rounds, the best with all rounds and single steps. */
const QUICK_ROUNDS = 2;
type Change = (plan: HeatPlan) => HeatPlan;
const warmingBoth = (list: readonly number[]): Change[] =>
  list.map((seconds) => (plan) => lasting(lasting(plan, 0, seconds), 1, seconds));
const melting = (list: readonly number[]): Change[] =>
  list.map((seconds) => (plan) => lasting(plan, WARMING_STEPS, seconds));
/** Enough to tell whether settings want a slow warming or a short melt. */
const QUICK_DURATIONS = [...warmingBoth([20, 60]), ...melting([12, 26])];
/** One after the other, each from the best so far. */
const DURATIONS = [
  ...warmingBoth(WARM_S),
  ...melting(MELT_S),
  ...warmingBoth(WARM_S),
  ...WARM_S.map(
    (seconds): Change =>
      (plan) =>
        lasting(plan, 0, seconds),
  ),
];
/** Dials are moved by so much, one or two at a time, and durations to the next that a hand keeps. */
const POLISH_C = [5, 15];
const MOST_POLISHES = 25;

/** Climbs by single steps until none of them helps: rounding and the corners of the limits leave that much. */
function polished(station: Station, start: Best, margins: Margins, most = MOST_POLISHES): Best {
  const [low, high] = station.setC;
  const groups = dialGroups(start.plan);
  const count = Math.max(...groups) + 1;
  const moved = (plan: HeatPlan, by: readonly number[]): HeatPlan => ({
    ...plan,
    steps: plan.steps.map((s, i) =>
      s.airSetC === null ? s : { ...s, airSetC: Math.min(high, Math.max(low, s.airSetC + by[groups[i]])) },
    ),
  });
  const rising = ({ steps }: HeatPlan): boolean => {
    const setpointsC = steps.flatMap((s) => (s.airSetC === null ? [] : [s.airSetC]));
    return setpointsC.every((d, i) => i === 0 || d >= setpointsC[i - 1]);
  };
  const one = Array.from({ length: count }, (_, g) => Array.from({ length: count }, (_, k) => Number(k === g)));
  const shifts = POLISH_C.flatMap((c) => [
    ...one.flatMap((e) => [e.map((v) => c * v), e.map((v) => -c * v)]),
    ...one.slice(1).flatMap((e, g) => [e.map((v, k) => c * (v - one[g][k])), e.map((v, k) => c * (one[g][k] - v))]),
  ]);
  const neighbours = (plan: HeatPlan): HeatPlan[] => [
    ...shifts.map((by) => moved(plan, by)).filter(rising),
    ...[WARM_S, WARM_S, MELT_S].flatMap((list, index) => {
      const at = list.indexOf(plan.steps[index]?.durationS);
      return [list[at - 1], list[at + 1]].filter((s) => at >= 0 && s !== undefined).map((s) => lasting(plan, index, s));
    }),
  ];
  let best = start;
  for (let k = 0; k < most; k++) {
    const better = neighbours(best.plan)
      .map((plan): Best => ({ plan, ...leastOf(margins(plan)) }))
      .reduce((a, b) => (b.marginK > a.marginK ? b : a));
    if (better.marginK <= best.marginK) break;
    best = better;
  }
  return best;
}

type Best = { readonly plan: HeatPlan } & Margin;

export const leastOf = (list: readonly Margin[]): Margin => list.reduce((a, b) => (b.marginK < a.marginK ? b : a));

/** A dial is moved by so much to see what it does, and by no more than that at a time. Engineering estimates. */
const PROBE_C = 10;
const REACH_C = 80;
const ROUNDS = 3;

/**
 * The dials with the largest least margin. Margins are concave in the dials (temperatures are all but linear in them), so a
 * few rounds of straight lines through them, each solved exactly, climb to the top.
 */
function bestDials(station: Station, start: HeatPlan, margins: Margins, rounds = ROUNDS): Best {
  const [low, high] = station.setC;
  const round = (c: number): number => Math.min(high, Math.max(low, Math.round(c / ROUND_TO_C) * ROUND_TO_C));
  /** Never cooler than the step before: a hand turns a dial up on the way to the melt. */
  const upwards = (list: readonly number[]): number[] => list.map((_, g) => round(Math.max(...list.slice(0, g + 1))));
  const apart = dialGroups(start);
  const withSetpoints = (setpointsC: readonly number[]): HeatPlan => ({
    ...start,
    steps: start.steps.map((s, i) => (s.airSetC === null ? s : { ...s, airSetC: setpointsC[apart[i]] })),
  });
  let setpointsC = upwards(
    Array.from({ length: Math.max(...apart) + 1 }, (_, g) => start.steps[apart.indexOf(g)].airSetC!),
  );
  let best: { setpointsC: number[]; margin: Margin } | undefined;
  let reachC = REACH_C;
  for (let round = 0; round < rounds; round++) {
    const here = margins(withSetpoints(setpointsC));
    const margin = leastOf(here);
    if (best && margin.marginK <= best.margin.marginK) {
      // Further than the straight lines hold: half the way from the best so far.
      reachC /= 2;
      setpointsC = upwards(best.setpointsC.map((d, g) => (d + setpointsC[g]) / 2));
      continue;
    }
    best = { setpointsC, margin };
    const slopes = setpointsC.map((setpointC, g) => {
      const step = setpointC + PROBE_C > high ? -PROBE_C : PROBE_C;
      return margins(withSetpoints(setpointsC.with(g, setpointC + step))).map(
        (m, i) => (m.marginK - here[i].marginK) / step,
      );
    });
    const move = maximinLp(
      here.map((m) => m.marginK),
      slopes,
      setpointsC.map((d): [number, number] => [Math.max(low - d, -reachC), Math.min(high - d, reachC)]),
      setpointsC.slice(1).map((d, g) => d - setpointsC[g]),
    );
    if (move.every((by) => Math.abs(by) < ROUND_TO_C / 2)) return { plan: withSetpoints(setpointsC), ...margin };
    setpointsC = upwards(setpointsC.map((d, g) => d + move[g]));
  }
  const last = leastOf(margins(withSetpoints(setpointsC)));
  return last.marginK > best!.margin.marginK
    ? { plan: withSetpoints(setpointsC), ...last }
    : { plan: withSetpoints(best!.setpointsC), ...best!.margin };
}

/** Which dial every step has: warming steps one each, all that come after one together; −1 without air. */
export function dialGroups(plan: HeatPlan): number[] {
  let groups = -1;
  let shared = -1;
  return plan.steps.map((s, i) => {
    if (s.airSetC === null) return -1;
    if (i < WARMING_STEPS) return ++groups;
    if (shared < 0) shared = ++groups;
    return shared;
  });
}
