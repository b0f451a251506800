/** 95 of 100 lie within so many standard deviations of the mean. */
export const WITHIN_SDS = 1.96;

/** Density of the normal distribution. */
export function normalPdf(x: number, mean: number, sd: number): number {
  const z = (x - mean) / sd;
  return Math.exp(-0.5 * z * z) / (sd * 2.5066282746310002);
}

/** Cumulative normal distribution, from {@link erfc}. */
export const normalCdf = (x: number, mean: number, sd: number): number => 0.5 * erfc((mean - x) / (sd * Math.SQRT2));

/**
 * Complementary error function, relative error below 1.2e-7 everywhere.
 * Source: Press et al., Numerical Recipes, "erfcc", Chebyshev fit (from memory; checked against tables in the tests).
 */
export function erfc(x: number): number {
  const t = 1 / (1 + 0.5 * Math.abs(x));
  const poly =
    -1.26551223 +
    t *
      (1.00002368 +
        t *
          (0.37409196 +
            t *
              (0.09678418 +
                t *
                  (-0.18628806 +
                    t * (0.27886807 + t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277))))))));
  const value = t * Math.exp(-x * x + poly);
  return x >= 0 ? value : 2 - value;
}

/** A draw from the standard normal distribution. Source: Box & Muller (1958). */
export const normalDraw = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** Beyond so many deviations lies less than the smallest share that is asked for. */
const FARTHEST_SDS = 9;

/**
 * The value below which the share `p` of the standard normal law lies, by bisection on {@link normalCdf}, to about 1e-6.
 * @throws RangeError when p is not between 0 and 1.
 */
export function normalQuantile(p: number): number {
  if (!(p > 0 && p < 1)) throw new RangeError(`expected a share between 0 and 1; got ${p}`);
  let [low, high] = [-FARTHEST_SDS, FARTHEST_SDS];
  while (high - low > 1e-9) {
    const middle = (low + high) / 2;
    if (normalCdf(middle, 0, 1) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
