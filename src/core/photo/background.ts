import type { Pixels } from './straighten';

/** What of a straightened photograph is not the bare board, and how bright everything is. */
export interface Foreground {
  readonly width: number;
  readonly height: number;
  /** 1 where something lies on the board. */
  readonly mask: Uint8Array;
  /** 0 to 255. */
  readonly luma: Float32Array;
}

/** Bins of the chroma histogram along each of its two axes. */
const BINS = 64;
/** A pixel of the solder mask lies this near to its colour, as a share of all light. Engineering estimate: above camera noise. */
const CHROMA_NEAR = 0.05;
/** Bare board is as bright as its surroundings within this share; traces under the mask differ by less. Engineering estimate. */
const LUMA_NEAR = 0.34;
/** Blocks over which the light is taken as even, mm. */
const BLOCK_MM = 5;
/** Pixels darker than this have no colour to speak of. */
const LEAST_LUMA = 6;

/**
 * Parts the board from what lies on it: the solder mask's colour is the commonest chroma of the picture, whatever the light;
 * how bright it is follows the light, block by block. @param pxPerMm scale of the photograph.
 */
export function foregroundOf({ width, height, data }: Pixels, pxPerMm: number): Foreground {
  const n = width * height;
  const luma = new Float32Array(n);
  const [red, green] = [new Float32Array(n), new Float32Array(n)];
  const histogram = new Float64Array(BINS * BINS);
  const bin = (share: number): number => Math.min(BINS - 1, Math.floor(share * BINS));
  for (let i = 0; i < n; i++) {
    const [r, g, b] = [data[4 * i], data[4 * i + 1], data[4 * i + 2]];
    const sum = r + g + b || 1;
    luma[i] = 0.299 * r + 0.587 * g + 0.114 * b;
    red[i] = r / sum;
    green[i] = g / sum;
    if (luma[i] > LEAST_LUMA && data[4 * i + 3] > 0) histogram[bin(red[i]) * BINS + bin(green[i])]++;
  }
  const peak = histogram.indexOf(Math.max(...histogram));
  const [r0, g0] = meanNear(red, green, (Math.floor(peak / BINS) + 0.5) / BINS, ((peak % BINS) + 0.5) / BINS);
  const isMaskColour = (i: number): boolean => Math.hypot(red[i] - r0, green[i] - g0) < CHROMA_NEAR;
  const light = lightOf(luma, isMaskColour, width, height, Math.max(8, Math.round(BLOCK_MM * pxPerMm)));
  const mask = new Uint8Array(n);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (data[4 * i + 3] === 0) continue;
      const expected = light(x, y);
      if (!isMaskColour(i) || Math.abs(luma[i] - expected) > LUMA_NEAR * expected) mask[i] = 1;
    }
  return { width, height, mask, luma };
}

function meanNear(red: Float32Array, green: Float32Array, r: number, g: number): [number, number] {
  let [sumR, sumG, n] = [0, 0, 0];
  for (let i = 0; i < red.length; i++) {
    if (Math.abs(red[i] - r) > 1.5 / BINS || Math.abs(green[i] - g) > 1.5 / BINS) continue;
    sumR += red[i];
    sumG += green[i];
    n++;
  }
  return n === 0 ? [r, g] : [sumR / n, sumG / n];
}

/** How bright the bare board is anywhere: the mean of its pixels in each block, between blocks linear. */
function lightOf(
  luma: Float32Array,
  isBoard: (i: number) => boolean,
  width: number,
  height: number,
  block: number,
): (x: number, y: number) => number {
  const [columns, rows] = [Math.ceil(width / block), Math.ceil(height / block)];
  const sums = new Float64Array(columns * rows);
  const counts = new Float64Array(columns * rows);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (!isBoard(i)) continue;
      const k = Math.floor(y / block) * columns + Math.floor(x / block);
      sums[k] += luma[i];
      counts[k]++;
    }
  const all =
    sums.reduce((s, v) => s + v, 0) /
    Math.max(
      1,
      counts.reduce((s, v) => s + v, 0),
    );
  // A block that a chip covers takes its light from its neighbours.
  const least = (block * block) / 20;
  const values = Array.from(sums, (s, k) => (counts[k] >= least ? s / counts[k] : NaN));
  for (let round = 0; round < columns + rows && values.some(Number.isNaN); round++)
    values.forEach((v, k) => {
      if (!Number.isNaN(v)) return;
      const [cx, cy] = [k % columns, Math.floor(k / columns)];
      const near = [
        [cx - 1, cy],
        [cx + 1, cy],
        [cx, cy - 1],
        [cx, cy + 1],
      ].flatMap(([x, y]) => (x < 0 || y < 0 || x >= columns || y >= rows ? [] : [values[y * columns + x]]));
      const known = near.filter((m) => !Number.isNaN(m));
      if (known.length > 0) values[k] = known.reduce((s, m) => s + m, 0) / known.length;
    });
  const at = (cx: number, cy: number): number => {
    const v = values[Math.min(rows - 1, Math.max(0, cy)) * columns + Math.min(columns - 1, Math.max(0, cx))];
    return Number.isNaN(v) ? all : v;
  };
  return (x, y) => {
    const [fx, fy] = [x / block - 0.5, y / block - 0.5];
    const [cx, cy] = [Math.floor(fx), Math.floor(fy)];
    const [tx, ty] = [fx - cx, fy - cy];
    return (
      (at(cx, cy) * (1 - tx) + at(cx + 1, cy) * tx) * (1 - ty) +
      (at(cx, cy + 1) * (1 - tx) + at(cx + 1, cy + 1) * tx) * ty
    );
  };
}
