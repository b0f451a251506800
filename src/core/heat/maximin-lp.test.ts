import { seededRandom } from '../math';
import { maximinLp } from './maximin-lp';

test('two limits that pull against each other meet in the middle', () => {
  // 4 + x and 10 − x: equal at x = 3.
  expect(maximinLp([4, 10], [[1, -1]], [[-50, 50]])[0]).toBeCloseTo(3, 1);
  // The bound stops at 2.
  expect(maximinLp([4, 10], [[1, -1]], [[-50, 2]])[0]).toBeCloseTo(2, 1);
});

test('no point of a fine grid over two dials has a higher least margin', () => {
  const random = seededRandom(11);
  for (let draw = 0; draw < 20; draw++) {
    const n = 6;
    const values = Array.from({ length: n }, () => 10 * random() - 5);
    // As on a board: one margin grows with the dials, the others shrink.
    const slopes = [0, 1].map(() => values.map((_, i) => (i === 0 ? 0.5 : -0.5) * (0.2 + random())));
    const bounds: [number, number][] = [
      [-40, 40],
      [-40, 40],
    ];
    const least = (x: number, y: number): number =>
      Math.min(...values.map((v, i) => v + slopes[0][i] * x + slopes[1][i] * y));
    const [x, y] = maximinLp(values, slopes, bounds);
    let best = -Infinity;
    for (let a = -40; a <= 40; a++) for (let b = -40; b <= 40; b++) best = Math.max(best, least(a, b));
    expect(least(x, y)).toBeGreaterThan(best - 0.1);
  }
});

test('a dial that does nothing stays where it is, and one limit alone is lifted as far as the bounds go', () => {
  expect(
    maximinLp(
      [3, 9],
      [
        [0, 0],
        [1, -1],
      ],
      [
        [-50, 50],
        [-50, 50],
      ],
    )[0],
  ).toBeCloseTo(0, 6);
  expect(maximinLp([-5], [[0.5]], [[-20, 20]])[0]).toBeCloseTo(20, 1);
  expect(maximinLp([-5], [[-0.5]], [[-20, 20]])[0]).toBeCloseTo(-20, 1);
});

test('limits that no dial moves leave the dials alone', () => {
  expect(maximinLp([2, 4], [[0, 0]], [[-50, 50]])).toEqual([0]);
});

test('three dials that have to rise: no grid point that rises is better, and the move keeps them rising', () => {
  const random = seededRandom(5);
  for (let draw = 0; draw < 12; draw++) {
    const values = Array.from({ length: 7 }, () => 20 * random() - 14);
    const slopes = [0, 1, 2].map((g) => values.map((_, i) => (i === 0 ? 0.4 : -0.4) * (0.1 + random() * (g + 1))));
    const bounds = [0, 1, 2].map((): [number, number] => [-30, 30]);
    const gaps = [5 * random(), 0];
    const least = (m: readonly number[]): number =>
      Math.min(...values.map((v, i) => v + slopes.reduce((s, slope, g) => s + slope[i] * m[g], 0)));
    const rises = (m: readonly number[]): boolean => gaps.every((gap, g) => gap + m[g + 1] - m[g] > -1e-6);
    const move = maximinLp(values, slopes, bounds, gaps);
    expect(rises(move)).toBe(true);
    let best = -Infinity;
    for (let a = -30; a <= 30; a += 3)
      for (let b = -30; b <= 30; b += 3)
        for (let c = -30; c <= 30; c += 3) if (rises([a, b, c])) best = Math.max(best, least([a, b, c]));
    expect(least(move)).toBeGreaterThan(best - 0.02);
  }
});
