/**
 * Chance that a chi-square variable of so many degrees of freedom is at least x: the regularised upper incomplete gamma function
 * Q(k/2, x/2), by its series below the mean and its continued fraction above. Source: Abramowitz & Stegun 6.5.29 and 6.5.31.
 */
export function chiSquareTail(x: number, degrees: number): number {
  if (x <= 0) return 1;
  const [a, z] = [degrees / 2, x / 2];
  const scale = Math.exp(-z + a * Math.log(z) - logGamma(a));
  if (z < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; Math.abs(term) > 1e-15 * sum; n++) sum += term *= z / (a + n);
    return 1 - scale * sum;
  }
  // Lentz's way of evaluating the fraction from the front.
  let b = z + 1 - a;
  let c = 1e300;
  let d = 1 / b;
  let fraction = d;
  for (let n = 1; n < 10_000; n++) {
    const an = -n * (n - a);
    b += 2;
    d = 1 / (an * d + b);
    c = b + an / c;
    fraction *= d * c;
    if (Math.abs(d * c - 1) < 1e-14) break;
  }
  return scale * fraction;
}

/** Stirling's series after shifting the argument up; within 1e-10 (Abramowitz & Stegun 6.1.41). */
function logGamma(x: number): number {
  let shift = 0;
  let z = x;
  for (; z < 12; z++) shift += Math.log(z);
  const series = 1 / (12 * z) - 1 / (360 * z ** 3) + 1 / (1260 * z ** 5);
  return (z - 0.5) * Math.log(z) - z + Math.log(2 * Math.PI) / 2 + series - shift;
}
