import { partByRef, type Board, type Part } from '../board';
import { ALLOYS } from '../joints';
import { GOALS_BY_ALLOY, packageCeilingC, type HeatGoals } from './goals';
import type { HeatPlan } from './plan';
import { jointWindow } from './purpose';
import type { HeatCurves, PartCurve } from './simulate';
import { HEAT_LIMITS, type HeatLimit, type HeatVerdict, type NeighbourVerdict } from './verdict-types';
import { verdictWords } from './verdict-words';

export type { HeatVerdict, NeighbourVerdict };

/** Rates are taken over windows of this length: a step of the dial would break any limit sample to sample. */
const RATE_WINDOW_S = 5;
/** Ramp limit to peak, °C/s. Source: J-STD-020 classification profile (from memory). */
export const RAMP_LIMIT_C_PER_S = 3;
/** Kinds that melt and freeze again beside any worked chip, and are blown away by too much air. */
export const SMALL_KINDS: ReadonlySet<Part['kind']> = new Set([
  'capacitor',
  'resistor',
  'esdArray',
  'lineFilter',
  'fuse',
  'clampDiode',
  'crystal',
]);

/** Judges a run; without goals of the bench's own, by those that are usual for the alloy. */
export function judgeHeat(
  board: Board,
  plan: HeatPlan,
  run: HeatCurves,
  goals: HeatGoals = GOALS_BY_ALLOY[plan.alloy],
): HeatVerdict {
  const { solidusC } = ALLOYS[plan.alloy];
  const { reachC, ownLimitC = null } = jointWindow(plan, goals);
  const worked = run.parts.find((p) => p.ref === plan.partRef)!;
  const part = partByRef(board, plan.partRef)!;
  const reachedAtS = crossing(run.timesS, worked.jointMinC, reachC);
  const neighbours = run.parts
    .filter((c) => c.ref !== plan.partRef)
    .map((c) => judgeNeighbour(board, plan, c, run, goals))
    .filter((n) => n !== undefined)
    .sort((a, b) => a.limitC - a.peakC - (b.limitC - b.peakC));
  const swimming = run.parts
    .filter(
      (c) =>
        c.ref !== plan.partRef && SMALL_KINDS.has(partByRef(board, c.ref)!.kind) && largest(c.jointMaxC) >= solidusC,
    )
    .map((c) => c.ref);
  const bodyLimitC = part.bodyLimitC ?? packageCeilingC(goals.ceilings, board.packages[part.package]);
  const figures = {
    reachC,
    reachedAtS,
    actAtS: reachedAtS === null ? null : Math.ceil(reachedAtS) + LIFT_AFTER_S,
    untilS: reachedAtS === null ? null : windowEnd(run.timesS, worked, reachedAtS, reachC, ownLimitC),
    aboveReachS: secondsAbove(run.timesS, worked.jointMinC, reachC),
    inTimeC: valueAt(run.timesS, worked.jointMinC, lastMeltS(plan)),
    coldestPeakC: largest(worked.jointMinC),
    hottestPeakC: largest(worked.jointMaxC),
    ownLimitC,
    bodyPeakC: largest(worked.bodyMaxC),
    bodyLimitC,
    fastestRiseCPerS: fastestRise(run.timesS, worked.jointMeanC),
    neighbours,
    swimming,
  };
  const gentle = goals.riseLimitCPerS === null || figures.fastestRiseCPerS <= goals.riseLimitCPerS;
  const solid = ownLimitC === null || figures.hottestPeakC <= ownLimitC;
  const broken: Readonly<Record<Exclude<HeatLimit, 'notSaid'>, boolean>> = {
    coldest: reachedAtS === null,
    inTime: reachedAtS !== null && !staysMolten(figures),
    neighbour: neighbours.some((n) => !n.holds),
    body: figures.bodyPeakC > bodyLimitC,
    solder: !solid,
    rise: !gentle,
  };
  const breaks = HEAT_LIMITS.filter((limit) => limit !== 'notSaid' && broken[limit]);
  return { ...figures, breaks, holds: breaks.length === 0, ...verdictWords(plan, figures) };
}

/**
 * Whether a neighbour has a limit: small parts without one of their own have none. A plate that parts two boards melts what
 * stands on them, which stays put when nothing moves: there only what is precious is judged.
 */
export function isJudged(board: Board, plan: HeatPlan, part: Part): boolean {
  if (plan.limitsC[part.ref] !== undefined || part.jointLimitC !== undefined) return true;
  if (plan.purpose === 'partBoards') return board.packages[part.package].plastic;
  return !SMALL_KINDS.has(part.kind);
}

/** Small parts melt and freeze again beside any worked chip; they are listed as swimming, not judged. */
function judgeNeighbour(
  board: Board,
  plan: HeatPlan,
  curve: PartCurve,
  run: HeatCurves,
  goals: HeatGoals,
): NeighbourVerdict | undefined {
  const part = partByRef(board, curve.ref)!;
  if (!isJudged(board, plan, part)) return undefined;
  const { solidusC } = ALLOYS[plan.alloy];
  const plastic = board.packages[part.package].plastic;
  const series = plastic ? curve.bodyMaxC : curve.jointMaxC;
  const usualC = plastic
    ? (part.bodyLimitC ?? goals.plasticLimitC)
    : (part.jointLimitC ?? solidusC - goals.neighbourUnderSolidusK);
  const limitC = plan.limitsC[part.ref] ?? usualC;
  const peakC = largest(series);
  return {
    ref: part.ref,
    what: part.what,
    limited: plastic ? 'body' : 'joints',
    peakC,
    limitC,
    atS: run.timesS[series.indexOf(peakC)],
    holds: peakC <= limitC,
  };
}

/** The nudge comes a few seconds after the last joint melts: wetting takes time (common practice). */
export const LIFT_AFTER_S = 3;

/** The first moment after `fromS` at which the coldest joint is below the reach again, or the hottest at its own limit. */
function windowEnd(
  timesS: Float32Array,
  { jointMinC, jointMaxC }: PartCurve,
  fromS: number,
  reachC: number,
  ownLimitC: number | null,
): number {
  for (let i = 0; i < timesS.length; i++) {
    if (timesS[i] <= fromS) continue;
    if (jointMinC[i] < reachC || (ownLimitC !== null && jointMaxC[i] >= ownLimitC)) return timesS[i];
  }
  return timesS[timesS.length - 1];
}

/** Whether the coldest joint melts early enough for the hand to act while the air is still on. */
export const staysMolten = ({ inTimeC, reachC }: Pick<HeatVerdict, 'inTimeC' | 'reachC'>): boolean => inTimeC >= reachC;

/** The last moment to melt at: the hand acts some seconds later, at a whole one, before the air goes, s. */
function lastMeltS({ steps }: HeatPlan): number {
  const lastHot = steps.findLastIndex((s) => s.airSetC !== null);
  const hotS = steps.slice(0, lastHot + 1).reduce((sum, s) => sum + s.durationS, 0);
  return Math.max(0, hotS - LIFT_AFTER_S);
}

/** A curve at a moment, or at its end where that comes first. */
function valueAt(timesS: Float32Array, series: Float32Array, atS: number): number {
  const i = timesS.findIndex((t) => t >= atS);
  return series[i < 0 ? series.length - 1 : i];
}

/** First time at which a curve crosses a level upwards, interpolated; null when it never does. */
export function crossing(timesS: Float32Array, series: Float32Array, level: number): number | null {
  for (let i = 0; i < series.length; i++) {
    if (series[i] < level) continue;
    if (i === 0) return timesS[0];
    return timesS[i - 1] + ((level - series[i - 1]) / (series[i] - series[i - 1])) * (timesS[i] - timesS[i - 1]);
  }
  return null;
}

function secondsAbove(timesS: Float32Array, series: Float32Array, level: number): number {
  let sum = 0;
  for (let i = 1; i < series.length; i++)
    if (series[i] >= level && series[i - 1] >= level) sum += timesS[i] - timesS[i - 1];
  return sum;
}

function fastestRise(timesS: Float32Array, series: Float32Array): number {
  let fastest = 0;
  for (let i = 0, j = 0; j < series.length; j++) {
    while (timesS[j] - timesS[i] > RATE_WINDOW_S) i++;
    const seconds = timesS[j] - timesS[i];
    if (seconds >= RATE_WINDOW_S - 0.01) fastest = Math.max(fastest, (series[j] - series[i]) / seconds);
  }
  return fastest;
}

const largest = (series: Float32Array): number => series.reduce((a, b) => Math.max(a, b), -Infinity);
