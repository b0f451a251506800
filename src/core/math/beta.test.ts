import { jStat } from 'jstat';
import { betaQuantile } from './beta';

test.each([
  [1, 1],
  [2.7, 1],
  [1.3, 4.7],
  [8, 2],
  [40.5, 3.3],
])('quantiles of Beta(%f, %f) equal jStat’s', (a, b) => {
  for (const p of [0.025, 0.05, 0.5, 0.9, 0.95, 0.999]) {
    expect(betaQuantile(p, a, b)).toBeCloseTo(jStat.beta.inv(p, a, b), 7);
  }
});

test('a flat prior is its own quantile, and one success gives the square root (closed forms)', () => {
  expect(betaQuantile(0.3, 1, 1)).toBeCloseTo(0.3, 10);
  expect(betaQuantile(0.05, 2, 1)).toBeCloseTo(Math.sqrt(0.05), 10);
});

test('names what it expected', () => {
  expect(() => betaQuantile(1.2, 1, 1)).toThrow('expected a share between 0 and 1; got 1.2');
  expect(() => betaQuantile(0.5, 0, 1)).toThrow('expected positive shapes; got 0 and 1');
});
