import { betaQuantile } from './beta';

/** What is known of a share before and after counting: a Beta distribution by its two shapes. */
export interface ShareBelief {
  readonly a: number;
  readonly b: number;
}

export interface ShareRange {
  readonly mean: number;
  /** Bounds that hold the share with 95 %, equal tails. */
  readonly low: number;
  readonly high: number;
}

const TAIL = 0.025;

/** A share with so many cases' worth of knowledge behind it. */
export const shareBelief = (mean: number, cases: number): ShareBelief => ({ a: mean * cases, b: (1 - mean) * cases });

/** The belief after so many hits and misses were seen. */
export const counted = ({ a, b }: ShareBelief, hits: number, misses: number): ShareBelief => ({
  a: a + hits,
  b: b + misses,
});

export const shareRange = ({ a, b }: ShareBelief): ShareRange => ({
  mean: a / (a + b),
  low: betaQuantile(TAIL, a, b),
  high: betaQuantile(1 - TAIL, a, b),
});
