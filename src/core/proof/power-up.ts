import { normalCdf } from '../math';

/** What is known before the first power after work. */
export interface PowerUpFacts {
  /** Level of the supply, V. */
  readonly volts: number;
  /** Draw that a good board of this kind may take at that level, A: from, to. */
  readonly drawA: readonly [number, number];
  /** Chance that a short is there. */
  readonly shortChance: number;
}

export interface PowerUpAdvice {
  readonly limitA: number;
  /** Heat in a short at the limit, W. */
  readonly shortW: number;
  /** Chance that a good board comes up under the limit. */
  readonly startsChance: number;
}

/** Minutes that a further try with more current costs. Engineering estimate. */
const RETRY_MINUTES = 2;
/** Minutes of repair that each watt in a short costs in the seconds until it is seen. Engineering estimate. */
const MINUTES_PER_WATT = 4;
/** Draws of good boards beyond the stated range: its ends are two standard deviations from the middle, in logarithms.
 * Engineering estimate. */
const ENDS_AT_SD = 2;
/** A range that begins at nothing: no running board draws less than this share of its most. Engineering estimate. */
const LEAST_OF_MOST = 0.1;
const STEP_A = 0.05;
const MOST_A = 3;

/**
 * The current limit for the first power-up: low enough that a short that is back stays cool, high enough that a good board
 * starts. The limit with the least expected minutes lost, in steps of 0.05 A.
 */
export function adviseLimit({ volts, drawA: [from, most], shortChance }: PowerUpFacts): PowerUpAdvice {
  const least = Math.max(from, most * LEAST_OF_MOST);
  const middle = (Math.log(least) + Math.log(most)) / 2;
  const sd = Math.max(0.05, (Math.log(most) - Math.log(least)) / 2 / ENDS_AT_SD);
  const at = (limitA: number): PowerUpAdvice & { readonly lost: number } => {
    const startsChance = normalCdf(Math.log(limitA), middle, sd);
    const shortW = volts * limitA;
    const lost = shortChance * MINUTES_PER_WATT * shortW + (1 - shortChance) * (1 - startsChance) * RETRY_MINUTES;
    return { limitA, shortW, startsChance, lost };
  };
  let best = at(STEP_A);
  for (let step = 2; step * STEP_A <= MOST_A; step++) {
    const one = at(Math.round(step * STEP_A * 100) / 100);
    if (one.lost < best.lost) best = one;
  }
  const { limitA, shortW, startsChance } = best;
  return { limitA, shortW, startsChance };
}
