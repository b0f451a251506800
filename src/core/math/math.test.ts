import { jStat } from 'jstat';
import { entropyBits, erfc, invertSpd, normalCdf, normalQuantile, seededRandom } from '.';

test('the inverse of a random positive definite matrix times itself is the unit matrix', () => {
  const random = seededRandom(3);
  const n = 12;
  const b = Float64Array.from({ length: n * n }, () => random() - 0.5);
  const a = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++)
      for (let k = 0; k < n; k++) a[i * n + j] += b[i * n + k] * b[j * n + k] + (i === j ? 0.01 : 0);
  const inverse = invertSpd(a, n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < n; j++) {
      let sum = 0;
      for (let k = 0; k < n; k++) sum += a[i * n + k] * inverse[k * n + j];
      expect(sum).toBeCloseTo(i === j ? 1 : 0, 8);
    }
  }
});

test('a matrix that is not positive definite is a programmer’s error', () => {
  expect(() => invertSpd(Float64Array.from([1, 2, 2, 1]), 2)).toThrow('not positive definite');
});

test.each([
  [0, 1],
  [0.5, 0.4795001222],
  [1, 0.1572992071],
  [2, 0.004677735],
  [-1, 1.8427007929],
])('erfc(%p) (Abramowitz & Stegun, table 7.1)', (x, wanted) => {
  expect(Math.abs(erfc(x) - wanted)).toBeLessThan(2e-7);
});

test('the normal distribution at 1.96 spreads is 0.975 (published tables)', () => {
  expect(normalCdf(1.959964, 0, 1)).toBeCloseTo(0.975, 6);
});

test('entropy of a fair coin is one bit, of certainty none', () => {
  expect(entropyBits([0.5, 0.5])).toBe(1);
  expect(entropyBits([1, 0])).toBe(0);
});

test('a seeded run repeats and fills the unit interval evenly', () => {
  const a = seededRandom(9);
  const b = seededRandom(9);
  const draws = Array.from({ length: 5000 }, a);
  expect(draws.slice(0, 50)).toEqual(Array.from({ length: 50 }, b));
  expect(draws.reduce((s, x) => s + x, 0) / draws.length).toBeCloseTo(0.5, 1);
});

test.each([1e-6, 0.025, 0.3, 0.5, 0.84, 0.999])('the normal quantile at %p is that of another library', (p) => {
  expect(normalQuantile(p)).toBeCloseTo(jStat.normal.inv(p, 0, 1), 4);
});
