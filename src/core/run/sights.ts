import type { PartRef } from '../identities';
import type { Board } from '../board';
import {
  STATION_UNKNOWNS,
  COARSE_MESH,
  covarianceOf,
  doubtDirections,
  filmDoubt,
  movedBy,
  simulateHeat,
  withCopper,
  withMultiplier,
  type HeatCurves,
  type HeatPlan,
  type Station,
} from '../heat';
import { ALLOYS } from '../joints';
import { normalCdf, normalPdf } from '../math';
import type { RunSight } from './schema';

/** What is known of a run's station and board at a moment of it. */
export interface RunKnowledge {
  readonly station: Station;
  /** Copper against the board's file, and one standard deviation of it. */
  readonly copper: number;
  readonly copperSd: number;
}

/** What was seen, and when: seconds under the plan's heat. */
export interface Sight {
  readonly seen: RunSight;
  readonly heatS: number;
  /** The neighbour that moved, where it is known which. */
  readonly ref?: PartRef;
}

/** How far copper may be from the board's file before anything was seen, one standard deviation. Engineering estimate. */
const COPPER_SD = 0.1;
/** What the model itself is off by, as a share of the rise above the room. Engineering estimate, as in the plan's own band. */
const MODEL_SHARE = 0.01;
/** The moved runs need only the difference. */
const COARSE = { ...COARSE_MESH, frames: false };

export const knownBefore = (station: Station): RunKnowledge => ({ station, copper: 1, copperSd: COPPER_SD });

/** What a sight leaves known, and how far each curve is in doubt after it. */
export interface Seen {
  readonly knowledge: RunKnowledge;
  /** One standard deviation of the worked part's coldest joint now, K. */
  readonly coldestSdK: number;
  /**
   * The same of a neighbour's joints or of the part's own body, by its reference, at the moment at which the worked part melts,
   * whenever that is: a weak station melts it later and heats all alike, K.
   */
  readonly besideSdK: ReadonlyMap<string, number>;
}

/** The curve and the level that a sight speaks of, and on which side of it the curve is. */
interface Claim {
  readonly curve: Curve;
  readonly levelC: number;
  readonly above: boolean;
}

/** Value of a curve at the end of the run. */
const last = (series: Float32Array): number => series[series.length - 1];

/** The joints of one part, or of any other than it. */
const hottestOf = (run: HeatCurves, ref: PartRef, alone: boolean): number =>
  Math.max(...run.parts.filter((p) => (p.ref === ref) === alone).map((p) => last(p.jointMaxC)));

/** Where a marking browns or a body bends: about the classification temperature of packages. Engineering estimate. */
const BROWNS_C = 260;

function claimOf(plan: HeatPlan, { seen, ref }: Sight): Claim {
  const { liquidusC, solidusC } = ALLOYS[plan.alloy];
  const of = (run: HeatCurves, name: string) => run.parts.find((p) => p.ref === name)!;
  switch (seen) {
    case 'stuck':
      return { curve: (run) => last(of(run, plan.partRef).jointMinC), levelC: liquidusC, above: false };
    case 'swims':
      return { curve: (run) => last(of(run, plan.partRef).jointMinC), levelC: liquidusC, above: true };
    case 'neighbourMoves':
      return { curve: (run) => hottestOf(run, ref ?? plan.partRef, ref !== undefined), levelC: solidusC, above: true };
    case 'browns':
      return { curve: (run) => last(of(run, plan.partRef).bodyMaxC), levelC: BROWNS_C, above: true };
  }
}

/**
 * Takes a sight in: the curve it speaks of is known to one standard deviation along each direction in which station and board are
 * in doubt; the sight cuts off one side of that, and the directions move and narrow as far as they take part (mean and
 * variance of a normal distribution cut off at one side; Johnson, Kotz and Balakrishnan, Continuous Univariate
 * Distributions 1, 1994, sec. 13.10, from memory).
 * @param flown the plan as it was flown up to the sight: it ends with it.
 */
export function takeSight(board: Board, before: RunKnowledge, flown: HeatPlan, sight: Sight): Seen {
  const { station, copper, copperSd } = before;
  const directions = doubtDirections(station);
  const run = (on: Station, factor: number): HeatCurves => simulateHeat(withCopper(board, factor), on, flown, COARSE)!;
  const here = run(station, copper);
  const filmSd = filmDoubt(station, flown);
  const moved = [
    ...directions.map((_, k) => run(alongOne(station, directions, k), copper)),
    run(withMultiplier(station, station.multiplier * (1 + filmSd)), copper),
    run(station, copper + copperSd),
  ];
  const { curve, levelC, above } = claimOf(flown, sight);
  const offs = moved.map((m) => curve(m) - curve(here));
  const modelSdK = MODEL_SHARE * (curve(here) - flown.ambientC);
  const sdK = Math.max(1e-6, Math.hypot(...offs, modelSdK));
  const cut = cutOff((levelC - curve(here)) / sdK, above);
  const shares = offs.map((k) => k / sdK);
  const by = shares.map((s) => s * cut.mean);
  const [filmBy, copperBy] = by.slice(-2);
  const shared = STATION_UNKNOWNS.map((_, i) => directions.reduce((sum, d, k) => sum + d[i] * shares[k], 0));
  const covariance = covarianceOf(station).map((row, i) =>
    row.map((v, j) => v - (1 - cut.variance) * shared[i] * shared[j]),
  );
  const along = movedBy(station, directions, by.slice(0, directions.length));
  const knowledge: RunKnowledge = {
    station: {
      ...withMultiplier(along, along.multiplier * (1 + filmBy * filmSd)),
      known: { covariance },
    },
    copper: copper + copperBy * copperSd,
    copperSd: copperSd * Math.sqrt(1 - (1 - cut.variance) * shares[shares.length - 1] ** 2),
  };
  /** Covariance of two curves that is left once the sight's own direction is known better, K². */
  const left = (a: Curve, b: Curve): number => {
    const [those, others] = [a, b].map((of) => [
      ...moved.map((m) => of(m) - of(here)),
      MODEL_SHARE * (of(here) - flown.ambientC),
    ]);
    const along = (list: readonly number[]): number => shares.reduce((sum, s, i) => sum + s * list[i], 0);
    const whole = those.reduce((sum, v, i) => sum + v * others[i], 0);
    return whole - (1 - cut.variance) * along(those) * along(others);
  };
  const of = (m: HeatCurves, ref: PartRef) => m.parts.find((p) => p.ref === ref)!;
  const coldest: Curve = (m) => last(of(m, flown.partRef).jointMinC);
  const coldestVariance = Math.max(1e-6, left(coldest, coldest));
  const besideSdK = (ref: PartRef): number => {
    const beside: Curve = (m) => last(ref === flown.partRef ? of(m, ref).bodyMaxC : of(m, ref).jointMaxC);
    return Math.sqrt(Math.max(0, left(beside, beside) - left(beside, coldest) ** 2 / coldestVariance));
  };
  return {
    knowledge,
    coldestSdK: Math.sqrt(coldestVariance),
    besideSdK: new Map(here.parts.map(({ ref }) => [ref, besideSdK(ref)])),
  };
}

type Curve = (run: HeatCurves) => number;

const alongOne = (station: Station, directions: readonly (readonly number[])[], k: number): Station =>
  movedBy(
    station,
    directions,
    directions.map((_, j) => Number(j === k)),
  );

/** Mean and variance of a standard normal variable of which only what lies on one side of a level is left. */
export function cutOff(level: number, above: boolean): { readonly mean: number; readonly variance: number } {
  // Seen from below; what lies above a level mirrors what lies below its negative.
  const a = above ? -level : level;
  const ratio = a < FAR_OUT ? -a - 1 / a : normalPdf(a, 0, 1) / normalCdf(a, 0, 1);
  const variance = Math.max(1e-3, 1 - a * ratio - ratio * ratio);
  return { mean: above ? ratio : -ratio, variance };
}

/** Beyond so many deviations the ratio is taken from its expansion (Mills' ratio). */
const FAR_OUT = -6;
