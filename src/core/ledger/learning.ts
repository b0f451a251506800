import { chiSquareTail } from '../math';

/** What learning a figure from closed jobs moved, and whether it told the jobs better than the figure that ships. */
export interface Moved {
  /** Closed jobs that it rests on. */
  readonly seen: number;
  /** Mean gain in the logarithm of the chance given to each job by all the others, against what ships, nats; above 0 learning helped. */
  readonly gain: number;
  /** Twice its standard error on either side: learning is told to help or to harm only beyond it. */
  readonly spread: number;
}

/** A law of minutes: log-normal, its mean and the spread of its logarithm. */
export interface MinutesLaw {
  readonly minutes: number;
  readonly sdLog: number;
}

/** Logarithm of the density of so many minutes under a log-normal law. */
function logDensity({ minutes, sdLog }: MinutesLaw, value: number): number {
  const mu = Math.log(minutes) - sdLog ** 2 / 2;
  const z = (Math.log(value) - mu) / sdLog;
  return -Math.log(value * sdLog * Math.sqrt(2 * Math.PI)) - z ** 2 / 2;
}

/** Leaves each job out, learns from the others, and holds both laws against what it took. Source: leave-one-out predictive score; Gelman et al., Bayesian Data Analysis, 3rd ed., 7.2 (from memory). */
export function leaveOneOut(
  ships: MinutesLaw,
  learn: (seen: readonly number[]) => MinutesLaw,
  seen: readonly number[],
): Moved {
  const taken = seen.filter((m) => m > 0);
  const gains = taken.map((m, i) => logDensity(learn(taken.filter((_, k) => k !== i)), m) - logDensity(ships, m));
  const n = gains.length;
  const gain = n === 0 ? 0 : gains.reduce((s, g) => s + g, 0) / n;
  const variance = n < 2 ? Infinity : gains.reduce((s, g) => s + (g - gain) ** 2, 0) / (n - 1);
  return { seen: n, gain, spread: n < 2 ? Infinity : 2 * Math.sqrt(variance / n) };
}

/** Where a series of jobs began to follow another law. */
export interface Change {
  /** The first job of the new law, from 0. */
  readonly at: number;
  /** Chance that a series without a change looks as different, all places of the break counted. */
  readonly p: number;
}

/** On either side so many jobs, or a break is no break. Engineering estimate. */
const LEAST_SIDE = 5;
/** A break is told below this. */
const TOLD_BELOW = 0.01;

/**
 * The break that splits a series of minutes best, where there is one, by ranks alone: no law of the minutes is taken for granted, and one
 * odd job does not make it. Source: Pettitt (1979), A non-parametric approach to the change-point problem, Applied Statistics 28 (from
 * memory), with his approximation of the chance.
 */
export function changeOf(minutesInOrder: readonly number[]): Change | undefined {
  const n = minutesInOrder.length;
  if (n < 2 * LEAST_SIDE) return undefined;
  let statistic = 0;
  let best = { at: 0, most: -1 };
  for (let at = 1; at < n; at++) {
    const joined = minutesInOrder[at - 1];
    statistic += minutesInOrder.reduce((sum, m) => sum + Math.sign(joined - m), 0);
    const isWithin = at >= LEAST_SIDE && at <= n - LEAST_SIDE;
    if (isWithin && Math.abs(statistic) > best.most) best = { at, most: Math.abs(statistic) };
  }
  const p = Math.min(1, 2 * Math.exp((-6 * best.most ** 2) / (n ** 3 + n ** 2)));
  return p < TOLD_BELOW ? { at: best.at, p } : undefined;
}

/**
 * Where a share of hits began to be another one: twice the logarithm of the likelihood ratio of two shares against one, chi-square with
 * one degree of freedom, times the places that it might have been at (Bonferroni).
 * @param hitsInOrder one for each job, in the order in which they were closed.
 */
export function shareChangeOf(hitsInOrder: readonly boolean[]): Change | undefined {
  const n = hitsInOrder.length;
  const places = n - 2 * LEAST_SIDE + 1;
  if (places < 1) return undefined;
  const before = [0];
  hitsInOrder.forEach((hit, i) => before.push(before[i] + Number(hit)));
  let best = { at: LEAST_SIDE, ratio: 0 };
  for (let at = LEAST_SIDE; at <= n - LEAST_SIDE; at++) {
    const ratio =
      2 * (logLikelihood(before[at], at) + logLikelihood(before[n] - before[at], n - at) - logLikelihood(before[n], n));
    if (ratio > best.ratio) best = { at, ratio };
  }
  const p = Math.min(1, places * chiSquareTail(best.ratio, 1));
  return p < TOLD_BELOW ? { at: best.at, p } : undefined;
}

const logLikelihood = (hits: number, of: number): number =>
  (hits > 0 ? hits * Math.log(hits / of) : 0) + (hits < of ? (of - hits) * Math.log(1 - hits / of) : 0);
