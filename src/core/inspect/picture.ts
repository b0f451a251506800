/** A grey picture, row by row, 0 to 255. */
export interface GreyPicture {
  readonly width: number;
  readonly height: number;
  readonly grey: Uint8Array | Uint8ClampedArray;
}

/** Larger pictures are refused: nothing on a bench needs more, and memory ends. */
export const MOST_PIXELS = 24_000_000;

/** Grey from red, green, blue and alpha. Weights: ITU-R BT.601. */
export function greyOf(rgba: Uint8Array | Uint8ClampedArray, width: number, height: number): GreyPicture {
  const grey = new Uint8Array(width * height);
  for (let i = 0, k = 0; i < grey.length; i++, k += 4) {
    grey[i] = (77 * rgba[k] + 150 * rgba[k + 1] + 29 * rgba[k + 2] + 128) >> 8;
  }
  return { width, height, grey };
}

/** The picture with every factor × factor pixels averaged into one. */
export function shrunk({ width, height, grey }: GreyPicture, factor: number): GreyPicture {
  if (factor <= 1) return { width, height, grey };
  const [w, h] = [Math.floor(width / factor), Math.floor(height / factor)];
  const out = new Uint8Array(w * h);
  const sums = new Uint32Array(w);
  const area = factor * factor;
  for (let y = 0; y < h; y++) {
    sums.fill(0);
    for (let dy = 0; dy < factor; dy++) {
      let at = (y * factor + dy) * width;
      for (let x = 0; x < w; x++) {
        let sum = 0;
        for (let dx = 0; dx < factor; dx++) sum += grey[at++];
        sums[x] += sum;
      }
    }
    for (let x = 0; x < w; x++) out[y * w + x] = (sums[x] + area / 2) / area;
  }
  return { width: w, height: h, grey: out };
}

/** Grey at a place between pixels, from the four around it; the edge goes on outside. */
export function greyAt({ width, height, grey }: GreyPicture, x: number, y: number): number {
  const cx = Math.min(width - 1.001, Math.max(0, x));
  const cy = Math.min(height - 1.001, Math.max(0, y));
  const [x0, y0] = [cx | 0, cy | 0];
  const [fx, fy] = [cx - x0, cy - y0];
  const at = y0 * width + x0;
  const top = grey[at] + fx * (grey[at + 1] - grey[at]);
  const bottom = grey[at + width] + fx * (grey[at + width + 1] - grey[at + width]);
  return top + fy * (bottom - top);
}
