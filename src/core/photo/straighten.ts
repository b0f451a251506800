import { mapPoint, type Homography } from '../site';

/** Pixels in rows, four bytes each: red, green, blue, opacity. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** Finer than this a straightened photograph shows no more than the camera saw: px per mm. */
const MOST_PX_PER_MM = 40;
/** Longest side of a straightened photograph, px. */
const MOST_SIDE_PX = 2400;

/** Pixels per millimetre at which a board of this size is kept. */
export const pxPerMmFor = (widthMm: number, heightMm: number): number =>
  Math.min(MOST_PX_PER_MM, MOST_SIDE_PX / Math.max(widthMm, heightMm));

/**
 * The board as if seen from straight above: each pixel of the result is looked up in the photograph, between its four
 * neighbours. What lies outside the photograph stays transparent.
 * @param map from board mm to px of the photograph. @param pxPerMm scale of the result.
 */
export function straightened(
  photo: Pixels,
  map: Homography,
  widthMm: number,
  heightMm: number,
  pxPerMm: number,
): Pixels {
  const [width, height] = [Math.round(widthMm * pxPerMm), Math.round(heightMm * pxPerMm)];
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = mapPoint(map, { x: (x + 0.5) / pxPerMm, y: (y + 0.5) / pxPerMm });
      const [sx, sy] = [at.x - 0.5, at.y - 0.5];
      const [x0, y0] = [Math.floor(sx), Math.floor(sy)];
      if (x0 < 0 || y0 < 0 || x0 + 1 >= photo.width || y0 + 1 >= photo.height) continue;
      const [fx, fy] = [sx - x0, sy - y0];
      const from = 4 * (y0 * photo.width + x0);
      const below = from + 4 * photo.width;
      const to = 4 * (y * width + x);
      for (let c = 0; c < 4; c++) {
        const top = photo.data[from + c] * (1 - fx) + photo.data[from + 4 + c] * fx;
        const bottom = photo.data[below + c] * (1 - fx) + photo.data[below + 4 + c] * fx;
        data[to + c] = top * (1 - fy) + bottom * fy;
      }
    }
  return { width, height, data };
}
