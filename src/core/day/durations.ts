/** Minutes of a kind of step: log-normal. */
export interface Duration {
  /** Expected. */
  readonly minutes: number;
  readonly sdLog: number;
  /** Closed jobs that it rests on. */
  readonly seen: number;
}

/** What is taken before anything was seen. */
export interface DurationPrior {
  readonly minutes: number;
  readonly sdLog: number;
}

/** A prior counts as so many jobs. Engineering estimate. */
const PRIOR_JOBS = 4;

/**
 * The duration after what was seen: the mean of logarithms shrunk towards the prior's, the spread likewise (normal with unknown mean and
 * variance, conjugate prior; Gelman et al., Bayesian Data Analysis, 3rd ed., sec. 3.3, from memory).
 */
export function learnedDuration(prior: DurationPrior, seenMin: readonly number[]): Duration {
  const logs = seenMin.filter((m) => m > 0).map(Math.log);
  const n = logs.length;
  const before = Math.log(prior.minutes) - prior.sdLog ** 2 / 2;
  const mean = n === 0 ? before : logs.reduce((sum, l) => sum + l, 0) / n;
  const squares = logs.reduce((sum, l) => sum + (l - mean) ** 2, 0);
  const middle = (PRIOR_JOBS * before + n * mean) / (PRIOR_JOBS + n);
  const apart = ((PRIOR_JOBS * n) / (PRIOR_JOBS + n)) * (mean - before) ** 2;
  const variance = (PRIOR_JOBS * prior.sdLog ** 2 + squares + apart) / (PRIOR_JOBS + n);
  return { minutes: Math.exp(middle + variance / 2), sdLog: Math.sqrt(variance), seen: n };
}
