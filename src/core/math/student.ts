/**
 * Two-sided Student's t quantile: the t that a t-distributed value exceeds in size with chance 1 − `confidence`.
 * Solved on the cumulative distribution by bisection; exact to about 1e-10.
 * @param confidence for example 0.95.
 * @param degrees degrees of freedom, 1 or more.
 * @throws RangeError outside those.
 */
export function studentT(confidence: number, degrees: number): number {
  if (!(confidence > 0 && confidence < 1))
    throw new RangeError(`expected a confidence between 0 and 1; got ${confidence}`);
  if (!(degrees >= 1)) throw new RangeError(`expected one degree of freedom or more; got ${degrees}`);
  const tail = 1 - confidence;
  let low = 0;
  let high = 1;
  while (bothTails(high, degrees) > tail) high *= 2;
  for (let i = 0; i < 100 && high - low > 1e-12 * high; i++) {
    const middle = (low + high) / 2;
    if (bothTails(middle, degrees) > tail) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Chance that |T| exceeds t: I(ν/(ν+t²); ν/2, 1/2). Source: Abramowitz & Stegun, Handbook of Mathematical Functions, 26.7. */
const bothTails = (t: number, degrees: number): number =>
  regularisedBeta(degrees / (degrees + t * t), degrees / 2, 0.5);

/** Regularised incomplete beta function I(x; a, b) by its continued fraction. Source: Abramowitz & Stegun, 26.5.8. */
export function regularisedBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - regularisedBeta(1 - x, b, a);
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x));
  return (front / a) * betaFraction(x, a, b);
}

/** The fraction 1/(1+ d₁/(1+ d₂/(1+ …))) by Lentz's method (Lentz 1976). */
function betaFraction(x: number, a: number, b: number): number {
  const tiny = 1e-300;
  let c = 1;
  let d = 1 / keepOff(1 - ((a + b) * x) / (a + 1), tiny);
  let value = d;
  for (let m = 1; m <= 300; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / keepOff(1 + even * d, tiny);
    c = keepOff(1 + even / c, tiny);
    value *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / keepOff(1 + odd * d, tiny);
    c = keepOff(1 + odd / c, tiny);
    const step = d * c;
    value *= step;
    if (Math.abs(step - 1) < 1e-15) break;
  }
  return value;
}

const keepOff = (x: number, tiny: number): number => (Math.abs(x) < tiny ? tiny : x);

/** Lanczos's coefficients for g = 7, n = 9. Source: Lanczos (1964); values from memory, checked against factorials in the tests. */
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];

/** Natural logarithm of the gamma function, for x > 0. */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const z = x - 1;
  const sum = LANCZOS.reduce((s, c, i) => (i === 0 ? c : s + c / (z + i)), 0);
  const t = z + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}
