import { Matrix, solve } from 'ml-matrix';
import { PRIOR_SDS, STATION_BOUNDS } from '../heat';
import type { Blows, CouponCurves, Unknowns } from './coupon';
import { blowOf, observed, type BlowTrial, type Trial } from './observation';

export interface Estimate {
  readonly value: number;
  /** One standard deviation. */
  readonly sd: number;
}

/**
 * What is known before: nothing of efficiency and multiplier but that they are physical; entrainment 3.5, lag 6 s, losses and how
 * efficiency goes with the flow are estimates; heat capacity and the probe's reading carry the systematic errors into the stated doubt.
 * A probe that lies on a surface or is stuck to it reads a few per cent of the rise low or high (common practice, no source);
 * a fixed point pins it.
 */
export const BEFORE: Record<keyof Unknowns, Estimate> = {
  outletEfficiency: { value: 0.85, sd: 5 },
  multiplier: { value: 0.75, sd: 5 },
  spreadDiameters: { value: 3.5, sd: PRIOR_SDS.spreadDiameters },
  outletLagS: { value: 6, sd: PRIOR_SDS.outletLagS },
  lossShare: { value: 1, sd: PRIOR_SDS.lossShare },
  flowExponent: { value: 0, sd: PRIOR_SDS.flowExponent },
  heatShare: { value: 1, sd: 0.03 },
  probeShare: { value: 1, sd: 0.04 },
};
export const NAMES = Object.keys(BEFORE) as (keyof Unknowns)[];
/** Physical bounds. */
const BOUNDS: Record<keyof Unknowns, readonly [number, number]> = {
  ...STATION_BOUNDS,
  heatShare: [0.5, 2],
  probeShare: [0.5, 1.5],
};
/** An unknown is moved by so much of itself to see what it does, and at least by so much. */
const PROBE_SHARE = 0.01;
export const stepOf = (value: number): number => Math.max(PROBE_SHARE, PROBE_SHARE * Math.abs(value));
const MOST_ROUNDS = 14;
export type Prior = Record<keyof Unknowns, Estimate>;

export const centreOf = (prior: Prior): Unknowns =>
  Object.fromEntries(NAMES.map((n) => [n, prior[n].value])) as unknown as Unknowns;

/** Where a fit ended. */
export interface Fitted {
  readonly at: Unknowns;
  /** In standard deviations: of the observations, then of what was known before. */
  readonly residuals: readonly number[];
  readonly slopes: readonly (readonly number[])[];
}

/** Levenberg–Marquardt, from what is known before where no better place to begin is given. */
export function leastSquares(blows: Blows, trials: readonly Trial[], prior: Prior, from = centreOf(prior)): Fitted {
  let at = from;
  let damping = 1e-3;
  let here = residualsOf(blows, trials, at, prior);
  let slopes = jacobian(blows, trials, at, here, prior);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const normal = normalOf(slopes);
    const damped = normal.clone();
    for (let k = 0; k < NAMES.length; k++) damped.set(k, k, normal.get(k, k) * (1 + damping));
    const downhill = Matrix.columnVector(slopes.map((s) => -s.reduce((sum, v, i) => sum + v * here[i], 0)));
    const by = solve(damped, downhill).to1DArray();
    const next = Object.fromEntries(NAMES.map((n, k) => [n, clamp(at[n] + by[k], BOUNDS[n])])) as unknown as Unknowns;
    const there = residualsOf(blows, trials, next, prior);
    const gain = sumOfSquares(here) - sumOfSquares(there);
    if (gain > 0) {
      [at, here] = [next, there];
      slopes = jacobian(blows, trials, at, here, prior);
      damping /= 5;
    } else damping *= 5;
    if (Math.abs(gain) < 1e-3 || damping > 1e6) break;
  }
  return { at, residuals: here, slopes };
}

const clamp = (x: number, [low, high]: readonly [number, number]): number => Math.min(high, Math.max(low, x));
export const sumOfSquares = (list: readonly number[]): number => list.reduce((sum, x) => sum + x * x, 0);

/** JᵀJ; the slopes are the columns of J. */
export const normalOf = (slopes: readonly (readonly number[])[]): Matrix =>
  new Matrix(slopes.map((a) => slopes.map((b) => a.reduce((sum, v, i) => sum + v * b[i], 0))));

/** What each unknown, moved a little, does to the residuals. */
export function jacobian(
  blows: Blows,
  trials: readonly Trial[],
  at: Unknowns,
  here: readonly number[],
  prior: Prior = BEFORE,
): number[][] {
  return NAMES.map((name) => {
    const step = stepOf(at[name]);
    return residualsOf(blows, trials, { ...at, [name]: at[name] + step }, prior).map((r, i) => (r - here[i]) / step);
  });
}

/** Observed less predicted in standard deviations, then the unknowns against what is known before. */
export function residualsOf(blows: Blows, trials: readonly Trial[], at: Unknowns, prior: Prior = BEFORE): number[] {
  const blow = (trial: BlowTrial, durationS: number): CouponCurves => blows.curves(at, { ...blowOf(trial), durationS });
  return [
    ...trials.flatMap((trial) => observed(trial, at, blow)),
    ...NAMES.map((n) => (at[n] - prior[n].value) / prior[n].sd),
  ];
}
