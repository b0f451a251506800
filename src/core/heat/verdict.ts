import { partByRef, type Board, type Part } from '../board';
import { ALLOYS } from '../joints';
import { formatSeconds, formatTempC } from '../units';
import { GOALS_BY_ALLOY, packageCeilingC, type HeatGoals } from './goals';
import type { HeatPlan } from './plan';
import type { HeatCurves, PartCurve } from './simulate';

/** Rates are taken over windows of this length: a step of the dial would break any limit sample to sample. */
const RATE_WINDOW_S = 5;
/** Ramp limit to peak, °C/s. Source: J-STD-020 classification profile (from memory). */
export const RAMP_LIMIT_C_PER_S = 3;
const SMALL_KINDS: ReadonlySet<Part['kind']> = new Set([
  'capacitor',
  'resistor',
  'esdArray',
  'lineFilter',
  'fuse',
  'clampDiode',
  'crystal',
]);

export interface NeighbourVerdict {
  readonly ref: string;
  readonly what: string;
  /** What is limited: its joints, or its plastic body. */
  readonly limited: 'joints' | 'body';
  readonly peakC: number;
  readonly limitC: number;
  readonly atS: number;
  readonly holds: boolean;
}

export interface HeatVerdict {
  readonly liquidusC: number;
  /** When the coldest joint is molten; null when never. */
  readonly meltsAtS: number | null;
  /** When to nudge and lift: whole seconds, a little after the last joint melts; null when it never melts. */
  readonly liftAtS: number | null;
  readonly aboveLiquidusS: number;
  readonly coldestPeakC: number;
  readonly bodyPeakC: number;
  readonly bodyLimitC: number;
  readonly fastestRiseCPerS: number;
  /** Large or limited neighbours, the one with the least margin first. */
  readonly neighbours: readonly NeighbourVerdict[];
  /** Small parts whose solder melts as well: they can be blown or dragged away. */
  readonly swimming: readonly string[];
  readonly holds: boolean;
  /** The headline: an instruction. */
  readonly headline: string;
  /** One sentence under it. */
  readonly sentence: string;
  /** A few words for the path. */
  readonly finding: string;
}

/** Judges a run; without goals of the bench's own, by those that are usual for the alloy. */
export function judgeHeat(
  board: Board,
  plan: HeatPlan,
  run: HeatCurves,
  goals: HeatGoals = GOALS_BY_ALLOY[plan.alloy],
): HeatVerdict {
  const { liquidusC, solidusC } = ALLOYS[plan.alloy];
  const worked = run.parts.find((p) => p.ref === plan.partRef)!;
  const part = partByRef(board, plan.partRef)!;
  const meltsAtS = crossing(run.timesS, worked.jointMinC, liquidusC);
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
    liquidusC,
    meltsAtS,
    liftAtS: meltsAtS === null ? null : Math.ceil(meltsAtS) + LIFT_AFTER_S,
    aboveLiquidusS: secondsAbove(run.timesS, worked.jointMinC, liquidusC),
    coldestPeakC: largest(worked.jointMinC),
    bodyPeakC: largest(worked.bodyMaxC),
    bodyLimitC,
    fastestRiseCPerS: fastestRise(run.timesS, worked.jointMeanC),
    neighbours,
    swimming,
  };
  const gentle = goals.riseLimitCPerS === null || figures.fastestRiseCPerS <= goals.riseLimitCPerS;
  const holds = meltsAtS !== null && neighbours.every((n) => n.holds) && figures.bodyPeakC <= bodyLimitC && gentle;
  return { ...figures, holds, ...words(plan, figures) };
}

/** Whether a neighbour has a limit: small parts without one of their own have none. */
export const isJudged = (part: Part): boolean => !SMALL_KINDS.has(part.kind) || part.jointLimitC !== undefined;

/** Small parts melt and freeze again beside any worked chip; they are listed as swimming, not judged. */
function judgeNeighbour(
  board: Board,
  plan: HeatPlan,
  curve: PartCurve,
  run: HeatCurves,
  goals: HeatGoals,
): NeighbourVerdict | undefined {
  const part = partByRef(board, curve.ref)!;
  if (!isJudged(part) && plan.limitsC[part.ref] === undefined) return undefined;
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

type Words = Pick<HeatVerdict, 'headline' | 'sentence' | 'finding'>;

function words(plan: HeatPlan, v: Omit<HeatVerdict, keyof Words | 'holds'>): Words {
  const worst = v.neighbours[0];
  const neighbour = worst
    ? `${worst.ref} ${worst.limited} ${formatTempC(worst.peakC)} of ${Math.round(worst.limitC)}`
    : 'no neighbour limited';
  if (v.meltsAtS === null || v.liftAtS === null) {
    return {
      headline: `${plan.partRef} does not melt`,
      sentence: `Its coldest joint ends at ${formatTempC(v.coldestPeakC)}, ${Math.ceil(v.liquidusC - v.coldestPeakC)} °C short of ${Math.round(v.liquidusC)}. More air, less height, a plate below, or longer. Pulling now lifts pads.`,
      finding: `${plan.partRef} stays solid at ${formatTempC(v.coldestPeakC)}`,
    };
  }
  const broken = v.neighbours
    .filter((n) => !n.holds)
    .map((n) => `${n.ref} reaches ${formatTempC(n.peakC)} against ${Math.round(n.limitC)} at ${formatSeconds(n.atS)}`);
  if (v.bodyPeakC > v.bodyLimitC)
    broken.unshift(`${plan.partRef} itself reaches ${formatTempC(v.bodyPeakC)} against ${Math.round(v.bodyLimitC)}`);
  const tooHot = v.bodyPeakC > v.bodyLimitC ? 'it' : v.neighbours.find((n) => !n.holds)?.ref;
  const melts = `All joints are above ${Math.round(v.liquidusC)} °C from ${formatSeconds(v.meltsAtS)}, for ${formatSeconds(v.aboveLiquidusS)}.`;
  return {
    headline: `Lift ${plan.partRef} at ${formatSeconds(v.liftAtS)}, ${tooHot ? `but ${tooHot} gets too hot` : 'not before'}`,
    sentence:
      broken.length > 0
        ? `${melts} But ${broken.slice(0, 2).join('; ')}${broken.length > 2 ? ` and ${broken.length - 2} more are too hot` : ''}.`
        : `${melts} Closest to its limit: ${neighbour}.`,
    finding: `lifts at ${formatSeconds(v.liftAtS)}, ${broken.length > 0 ? broken[0] : neighbour}`,
  };
}

/** The nudge comes a few seconds after the last joint melts: wetting takes time (common practice). */
export const LIFT_AFTER_S = 3;

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
