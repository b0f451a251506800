import { Matrix, SingularValueDecomposition, solve } from 'ml-matrix';
import { inverse, mapPoint, type Homography, type Point } from '../site';
import { fail, ok, type Result } from '../result';

/** A place on the board in mm and where it is in the photograph in px. */
export interface Correspondence {
  readonly mm: Point;
  readonly px: Point;
}

/**
 * The map from the board's millimetres to the photograph's pixels, from four or more points.
 * Direct linear transform on normalised points; with more than four, refined by Gauss–Newton under Huber's loss, so that one
 * wrong click does not pull the rest. Source: Hartley & Zisserman, Multiple View Geometry, ch. 4 (from memory).
 * @returns the map, or why there is none: fewer than four points, or three of them in one line.
 */
export function homographyOf(points: readonly Correspondence[]): Result<Homography> {
  if (points.length < 4) return fail(`Expected four points or more; got ${points.length}.`);
  if (isFlat(points.map((p) => p.mm)) || isFlat(points.map((p) => p.px)))
    return fail('Expected points that span an area; too many of these lie on one line, or on one another.');
  const from = normalising(points.map((p) => p.mm));
  const to = normalising(points.map((p) => p.px));
  const rows = points.flatMap(({ mm, px }) => {
    const { x, y } = mapPoint(from, mm);
    const { x: u, y: v } = mapPoint(to, px);
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, -u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, -v],
    ];
  });
  // A row of noughts makes the smallest system square: the null vector is then among the right singular vectors.
  while (rows.length < 9) rows.push(new Array<number>(9).fill(0));
  const svd = new SingularValueDecomposition(new Matrix(rows), { autoTranspose: true });
  const normal = svd.rightSingularVectors.getColumn(8);
  const plain = scaled(product([...inverse(to), 1], product(normal, [...from, 1])));
  return ok(points.length > 4 ? refined(plain, points) : plain);
}

/** Points that lie within so small a share of their spread of one line span nothing. */
const FLAT_SHARE = 1e-3;

/** True where all points but one lie on one line, or nearly. */
function isFlat(points: readonly Point[]): boolean {
  const reach = Math.max(...points.map((p) => Math.hypot(p.x - points[0].x, p.y - points[0].y)));
  const area = (a: Point, b: Point, c: Point): number =>
    Math.abs((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
  // Four points serve where every three of them span a triangle; of more, where some four do.
  const spans = (set: readonly Point[]): boolean =>
    [0, 1, 2, 3].every((left) => {
      const [a, b, c] = set.filter((_, i) => i !== left);
      return area(a, b, c) > FLAT_SHARE * reach * reach;
    });
  if (reach === 0) return true;
  for (let a = 0; a < points.length; a++)
    for (let b = a + 1; b < points.length; b++)
      for (let c = b + 1; c < points.length; c++)
        for (let d = c + 1; d < points.length; d++)
          if (spans([points[a], points[b], points[c], points[d]])) return false;
  return true;
}

/** Moves points to their middle and scales them to a mean distance of √2. */
function normalising(points: readonly Point[]): Homography {
  const n = points.length;
  const cx = points.reduce((s, p) => s + p.x, 0) / n;
  const cy = points.reduce((s, p) => s + p.y, 0) / n;
  const mean = points.reduce((s, p) => s + Math.hypot(p.x - cx, p.y - cy), 0) / n;
  const s = Math.SQRT2 / mean;
  return [s, 0, -s * cx, 0, s, -s * cy, 0, 0];
}

/** Residuals beyond so many px weigh by their size, not its square. Engineering estimate: a careful click is within 2 px. */
const HUBER_PX = 2;
const MOST_ROUNDS = 20;

function refined(start: Homography, points: readonly Correspondence[]): Homography {
  let map = start;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const normal = Matrix.zeros(8, 8);
    const right = Matrix.zeros(8, 1);
    for (const { mm, px } of points) {
      const { x: u, y: v } = mapPoint(map, mm);
      const miss = Math.hypot(px.x - u, px.y - v);
      const weight = miss > HUBER_PX ? HUBER_PX / miss : 1;
      for (const [row, off] of [
        [slopes(map, mm, 'x'), px.x - u],
        [slopes(map, mm, 'y'), px.y - v],
      ] as const)
        for (let i = 0; i < 8; i++) {
          right.set(i, 0, right.get(i, 0) + weight * row[i] * off);
          for (let j = 0; j < 8; j++) normal.set(i, j, normal.get(i, j) + weight * row[i] * row[j]);
        }
    }
    const step = solve(normal, right, true).getColumn(0);
    const next = map.map((value, i) => value + step[i]);
    const moved = Math.max(...step.map((s, i) => Math.abs(s) / (Math.abs(map[i]) + 1e-6)));
    map = next;
    if (moved < 1e-10) break;
  }
  return map;
}

/** Derivatives of a mapped coordinate by the figures of the map. */
function slopes(map: Homography, at: Point, axis: 'x' | 'y'): number[] {
  const { x, y } = at;
  const w = map[6] * x + map[7] * y + 1;
  const value = mapPoint(map, at)[axis];
  const linear = [x / w, y / w, 1 / w];
  const nought = [0, 0, 0];
  return [...(axis === 'x' ? [...linear, ...nought] : [...nought, ...linear]), (-value * x) / w, (-value * y) / w];
}

type Square = readonly number[];

const product = (a: Square, b: Square): Square =>
  Array.from({ length: 9 }, (_, k) => {
    const [row, column] = [Math.floor(k / 3), k % 3];
    return a[3 * row] * b[column] + a[3 * row + 1] * b[3 + column] + a[3 * row + 2] * b[6 + column];
  });

/** A map of nine figures as one of eight, its last entry 1. */
const scaled = (map: Square): Homography => map.slice(0, 8).map((v) => v / map[8]);

/** Step of the numeric derivative, px. */
const STEP_PX = 0.5;

/**
 * How far off a place on the board may be, one standard deviation in mm, where each clicked point is off by `clickPx` both
 * ways: the map's sensitivity to each click, added in squares.
 */
export function placeDoubtMm(points: readonly Correspondence[], at: Point, clickPx: number): number {
  const map = homographyOf(points);
  if (!map.ok) return Infinity;
  const where = mapPoint(map.value, at);
  let squares = 0;
  points.forEach((p, i) => {
    for (const axis of ['x', 'y'] as const) {
      const moved = { ...p.px, [axis]: p.px[axis] + STEP_PX };
      const other = homographyOf(points.map((q, k) => (k === i ? { ...q, px: moved } : q)));
      if (!other.ok) return;
      const { x, y } = mapPoint(inverse(other.value), where);
      squares += ((x - at.x) ** 2 + (y - at.y) ** 2) / STEP_PX ** 2;
    }
  });
  return clickPx * Math.sqrt(squares / 2);
}
