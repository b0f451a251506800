import { Matrix, solve } from 'ml-matrix';

/** Row by row, the last entry 1: maps (x, y) to ((h0 x + h1 y + h2) / w, (h3 x + h4 y + h5) / w), w = h6 x + h7 y + 1. */
export type Homography = readonly number[];

export interface Point {
  readonly x: number;
  readonly y: number;
}

export function mapPoint(h: Homography, { x, y }: Point): Point {
  const w = h[6] * x + h[7] * y + 1;
  return { x: (h[0] * x + h[1] * y + h[2]) / w, y: (h[3] * x + h[4] * y + h[5]) / w };
}

/** The map scaled by a factor on the picture's side; pixels are counted from the middle of the first. */
export function scaled(h: Homography, factor: number): Homography {
  const shift = (factor - 1) / 2;
  const row = (a: number): number[] => [0, 1, 2].map((k) => factor * h[a + k] + shift * (k === 2 ? 1 : h[6 + k]));
  return [...row(0), ...row(3), h[6], h[7]];
}

/** With fewer pairs a perspective would follow the noise. Engineering estimate. */
const PERSPECTIVE_FROM = 9;

/**
 * Least squares over pairs of points: perspective from nine pairs on, affine from three, turned and scaled from two.
 * @returns undefined where the pairs do not settle it.
 */
export function fitHomography(from: readonly Point[], to: readonly Point[]): Homography | undefined {
  const n = from.length;
  if (n < 2) return undefined;
  const kind = n >= PERSPECTIVE_FROM ? 8 : n >= 3 ? 6 : 4;
  const rows = from.flatMap(({ x, y }, i): number[][] => {
    const { x: u, y: v } = to[i];
    if (kind === 4)
      return [
        [x, -y, 1, 0],
        [y, x, 0, 1],
      ];
    const perspective = kind === 8;
    return [
      [x, y, 1, 0, 0, 0, ...(perspective ? [-u * x, -u * y] : [])],
      [0, 0, 0, x, y, 1, ...(perspective ? [-v * x, -v * y] : [])],
    ];
  });
  const a = new Matrix(rows);
  const b = Matrix.columnVector(to.flatMap(({ x, y }) => [x, y]));
  const normal = a.transpose().mmul(a);
  const mean = normal.diagonal().reduce((s, d) => s + d, 0) / kind;
  // A whisper of damping: collinear pairs give a map that the next pairs put right, not a division by nothing.
  for (let k = 0; k < kind; k++) normal.set(k, k, normal.get(k, k) + 1e-12 * mean);
  const h = solve(normal, a.transpose().mmul(b)).to1DArray();
  if (h.some((value) => !Number.isFinite(value))) return undefined;
  if (kind === 4) return [h[0], -h[1], h[2], h[1], h[0], h[3], 0, 0];
  return kind === 6 ? [...h, 0, 0] : h;
}

/** The map back, by the adjugate of the 3 × 3 matrix. */
export function inverse([a, b, c, d, e, f, g, h]: Homography): Homography {
  const m = [e - f * h, c * h - b, b * f - c * e, f * g - d, a - c * g, c * d - a * f, d * h - e * g, b * g - a * h];
  const last = a * e - b * d;
  return m.map((value) => value / last);
}
