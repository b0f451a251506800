import { seededRandom } from '../math';
import { coverOf, polygonArea, type Point } from './cover';

const even = (n: number, size: number): Float64Array => Float64Array.from({ length: n + 1 }, (_, i) => (i * size) / n);

const covered = (outline: readonly Point[], xs: Float64Array, ys: Float64Array): number => {
  const nx = xs.length - 1;
  let sum = 0;
  for (const [column, share] of coverOf(outline, xs, ys)) {
    const [x, y] = [column % nx, Math.floor(column / nx)];
    sum += share * (xs[x + 1] - xs[x]) * (ys[y + 1] - ys[y]);
  }
  return sum;
};

const turned = (x: number, y: number, w: number, h: number, angle: number): Point[] =>
  [
    [-w, -h],
    [w, -h],
    [w, h],
    [-w, h],
  ].map(([a, b]) => [
    x + (a * Math.cos(angle) - b * Math.sin(angle)) / 2,
    y + (a * Math.sin(angle) + b * Math.cos(angle)) / 2,
  ]);

test('bodies keep their area at any place, size and turn, also where they are smaller than a cell', () => {
  const random = seededRandom(4);
  const [xs, ys] = [even(13, 20), even(9, 15)];
  for (let k = 0; k < 200; k++) {
    const [w, h] = [0.3 + 5 * random(), 0.3 + 5 * random()];
    const outline = turned(5 + 10 * random(), 5 + 5 * random(), w, h, Math.PI * random());
    expect(covered(outline, xs, ys) / (w * h)).toBeCloseTo(1, 1.7);
  }
});

test('an outline with a notch is covered exactly, and turned round the same', () => {
  const outline: Point[] = [
    [0, 0],
    [20, 0],
    [20, 15],
    [12, 15],
    [12, 6.3],
    [7.1, 6.3],
    [7.1, 15],
    [0, 15],
  ];
  const [xs, ys] = [even(11, 20), even(7, 15)];
  expect(polygonArea(outline)).toBeCloseTo(20 * 15 - 4.9 * 8.7, 9);
  expect(covered(outline, xs, ys)).toBeCloseTo(20 * 15 - 4.9 * 8.7, 9);
  expect(covered([...outline].reverse(), xs, ys)).toBeCloseTo(20 * 15 - 4.9 * 8.7, 9);
});

test('shares are of their own cell: a half-covered cell says one half', () => {
  const cells = coverOf(
    [
      [0.5, 0],
      [2, 0],
      [2, 1],
      [0.5, 1],
    ],
    even(3, 3),
    even(1, 1),
  );
  expect([...cells]).toEqual([
    [0, 0.5],
    [1, 1],
  ]);
});
