import { studentT } from '../math';

/** What readings on known-good boards say about one point. */
export interface ReferenceStats {
  readonly n: number;
  readonly mean: number;
  /** Sample standard deviation, with n − 1; 0 for one board. */
  readonly sd: number;
}

export interface Interval {
  readonly low: number;
  readonly high: number;
}

export const CONFIDENCE = 0.95;

/**
 * A meter's own last digit and its leads: no interval is narrower than this, as a share of the mean, with a floor.
 * Engineering estimate.
 */
const METER_SHARE = 0.01;
const METER_FLOOR = 0.002;

/** Mean and spread of readings on good boards. @throws RangeError without a reading. */
export function statsOf(values: readonly number[]): ReferenceStats {
  if (values.length === 0) throw new RangeError('expected one reference reading or more; got none');
  const n = values.length;
  const mean = values.reduce((s, v) => s + v, 0) / n;
  const squares = values.reduce((s, v) => s + (v - mean) ** 2, 0);
  return { n, mean, sd: n > 1 ? Math.sqrt(squares / (n - 1)) : 0 };
}

/**
 * Where the reading of one more good board falls with 95 % chance: mean ± t(0.975, n−1)·s·√(1+1/n), never narrower than
 * what the meter itself can tell. One board alone gives no interval.
 * Source: prediction interval for a normal sample, standard statistics; t by Student.
 */
export function predictionInterval({ n, mean, sd }: ReferenceStats): Interval | undefined {
  if (n < 2) return undefined;
  const half = studentT(CONFIDENCE, n - 1) * sd * Math.sqrt(1 + 1 / n);
  const reach = Math.max(half, METER_SHARE * Math.abs(mean), METER_FLOOR);
  return { low: mean - reach, high: mean + reach };
}
