import { chiSquareTail } from './chi-square';

test('upper quantiles of the chi-square distribution (tables, five figures)', () => {
  // 95 % and 99 % points for 1, 2, 5, 10, 30 and 100 degrees of freedom.
  const table: readonly (readonly [number, number, number])[] = [
    [1, 3.8415, 6.6349],
    [2, 5.9915, 9.2103],
    [5, 11.07, 15.086],
    [10, 18.307, 23.209],
    [30, 43.773, 50.892],
    [100, 124.34, 135.81],
  ];
  for (const [degrees, at95, at99] of table) {
    expect(chiSquareTail(at95, degrees)).toBeCloseTo(0.05, 4);
    expect(chiSquareTail(at99, degrees)).toBeCloseTo(0.01, 4);
  }
});

test('two degrees of freedom fall off as exp(−x/2), and nothing is below nought', () => {
  for (const x of [0.1, 1, 3, 20]) expect(chiSquareTail(x, 2)).toBeCloseTo(Math.exp(-x / 2), 10);
  expect(chiSquareTail(0, 4)).toBe(1);
});
