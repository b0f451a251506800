import { Matrix, solve } from 'ml-matrix';
import { chiSquareTail } from '../math';
import type { Blows, Unknowns } from './coupon';
import {
  BEFORE,
  NAMES,
  leastSquares,
  normalOf,
  residualsOf,
  sumOfSquares,
  type Fitted,
  type Prior,
} from './least-squares';
import type { Trial } from './observation';

/** Whether the trials can come from one station as it is taken to be. */
export interface FitTest {
  /** Sum of squares of all residuals, what was known before among them, in standard deviations; and how many are free. */
  readonly chiSquare: number;
  readonly free: number;
  /** Chance of as much or more where everything is as assumed. */
  readonly chance: number;
  readonly holds: boolean;
  /** Where it does not: which assumption, set free, explains most of it; and trials that pull in opposite directions. */
  readonly broken?: string;
  readonly contradicting?: string;
}

/** One honest calibration in a hundred is told that it does not fit. Engineering estimate. */
const LEAST_CHANCE = 0.01;
/** An assumption is set free by widening what was known of it so much; it is named where that takes half of the excess away. */
const SET_FREE = 6;
const EXPLAINS = 0.5;
/** So many, the likeliest by the slopes, are fitted anew. */
const FITTED_ANEW = 2;
/** A trial pulls where its residuals are off by so many standard deviations on average, by their number. */
const PULLS_SDS = 2.5;

const ASSUMPTIONS: Partial<Record<keyof Unknowns, (found: number) => string>> = {
  probeShare: (v) => `the probe reads ${percent(v)} of the true rise`,
  heatShare: (v) => `the coupon holds ${percent(v)} of the heat of its drawing`,
  lossShare: (v) => `still air and radiation take ${percent(v)} of what is assumed`,
  flowExponent: (v) => `the outlet efficiency goes with the flow to the power ${v.toFixed(2)}`,
  outletLagS: (v) => `the outlet follows the dial with ${v.toFixed(1)} s`,
  spreadDiameters: (v) => `cold air is drawn in within ${v.toFixed(1)} diameters`,
};
const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** Holds a fit against what was assumed; where it does not hold, the likeliest assumptions are set free one by one. */
export function testOfFit(blows: Blows, trials: readonly Trial[], found: Fitted): FitTest {
  const { at, residuals } = found;
  const chiSquare = sumOfSquares(residuals);
  // The residuals of what was known before stand in for the unknowns that are fitted.
  const free = Math.max(1, residuals.length - NAMES.length);
  const chance = chiSquareTail(chiSquare, free);
  if (chance >= LEAST_CHANCE) return { chiSquare, free, chance, holds: true };
  const excess = chiSquare - free;
  const likeliest = (Object.keys(ASSUMPTIONS) as (keyof Unknowns)[])
    .map((name) => ({ name, left: leftWhereFree(found, name) }))
    .sort((a, b) => a.left - b.left)
    .slice(0, FITTED_ANEW);
  const freed = likeliest.map(({ name }) => {
    const { at: there, residuals: left } = leastSquares(blows, trials, setFree(name), at);
    return { words: ASSUMPTIONS[name]!(there[name]), explained: chiSquare - sumOfSquares(left) };
  });
  const most = freed.reduce((a, b) => (b.explained > a.explained ? b : a));
  return {
    ...{ chiSquare, free, chance, holds: false },
    broken:
      most.explained > EXPLAINS * excess
        ? `It would fit if ${most.words}.`
        : 'No single assumption explains it: look at the trials themselves.',
    contradicting: contradiction(blows, trials, at),
  };
}

const setFree = (name: keyof Unknowns): Prior => ({
  ...BEFORE,
  [name]: { ...BEFORE[name], sd: SET_FREE * BEFORE[name].sd },
});

/** What would be left of the sum of squares with an assumption set free, by the slopes where the fit stands (one Gauss–Newton step). */
function leftWhereFree({ residuals, slopes }: Fitted, name: keyof Unknowns): number {
  const row = residuals.length - NAMES.length + NAMES.indexOf(name);
  const wider = (list: readonly number[]): number[] => list.map((v, i) => (i === row ? v / SET_FREE : v));
  const [left, columns] = [wider(residuals), slopes.map(wider)];
  const downhill = Matrix.columnVector(columns.map((c) => -c.reduce((sum, v, i) => sum + v * left[i], 0)));
  const by = solve(normalOf(columns), downhill).to1DArray();
  return sumOfSquares(left.map((r, i) => r + columns.reduce((sum, c, k) => sum + c[i] * by[k], 0)));
}

/** The two trials that pull hardest in opposite directions; undefined where they do not. */
function contradiction(blows: Blows, trials: readonly Trial[], at: Unknowns): string | undefined {
  const pulls = trials.map((trial) => {
    const off = residualsOf(blows, [trial], at, BEFORE).slice(0, -NAMES.length);
    const hotter = trial.kind === 'melt' ? -1 : 1;
    return { trial, sds: (hotter * off.reduce((a, b) => a + b, 0)) / Math.sqrt(off.length) };
  });
  const [hot, cold] = [1, -1].map((sign) => pulls.reduce((a, b) => (sign * b.sds > sign * a.sds ? b : a)));
  if (hot.sds < PULLS_SDS || cold.sds > -PULLS_SDS) return undefined;
  return `${named(hot.trial)} speaks for a hotter station, ${named(cold.trial)} for a cooler one.`;
}

function named(trial: Trial): string {
  if (trial.kind === 'fixedPoint') return `the fixed point at ${trial.trueC} °C`;
  if (trial.kind === 'log') return `the log at ${trial.setC}`;
  return `the ${trial.alloyC} °C alloy ${trial.kind === 'melt' ? `timed at ${trial.setC}` : 'at its lowest set point'}`;
}
