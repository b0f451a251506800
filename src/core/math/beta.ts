import { regularisedBeta } from './student';

/**
 * Quantile of the Beta(a, b) distribution: the x below which the share `p` lies. Solved on the regularised incomplete
 * beta function by bisection, to about 1e-12.
 * @throws RangeError when p is outside 0 … 1 or a shape is not positive.
 */
export function betaQuantile(p: number, a: number, b: number): number {
  if (!(p >= 0 && p <= 1)) throw new RangeError(`expected a share between 0 and 1; got ${p}`);
  if (!(a > 0 && b > 0)) throw new RangeError(`expected positive shapes; got ${a} and ${b}`);
  let low = 0;
  let high = 1;
  for (let i = 0; i < 60 && high - low > 1e-13; i++) {
    const middle = (low + high) / 2;
    if (regularisedBeta(middle, a, b) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
