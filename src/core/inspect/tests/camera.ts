import { Image, decode, encode } from 'image-js';
import type { GreyPicture } from '..';

/** A field of light blurred by a Gaussian, its border going on outside. Written apart from the inspection's own blur. */
export function blur(field: Float32Array, w: number, h: number, sigma: number): Float32Array {
  const reach = Math.ceil(3 * sigma);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, k) => Math.exp(-((k - reach) ** 2) / (2 * sigma * sigma)));
  const total = weights.reduce((a, b) => a + b, 0);
  const pass = (from: Float32Array, dx: number, dy: number): Float32Array =>
    from.map((_, i) => {
      const [x, y] = [i % w, Math.floor(i / w)];
      let sum = 0;
      for (let k = -reach; k <= reach; k++) {
        const [qx, qy] = [Math.min(w - 1, Math.max(0, x + k * dx)), Math.min(h - 1, Math.max(0, y + k * dy))];
        sum += weights[k + reach] * from[qy * w + qx];
      }
      return sum / total;
    });
  return pass(pass(field, 1, 0), 0, 1);
}

/** The grey picture after a camera's JPEG, 8 bits. @param levels row by row, 0 to 255. @param quality 1 to 100. */
export function throughJpeg(levels: ArrayLike<number>, width: number, height: number, quality: number): GreyPicture {
  const data = new Uint8Array(width * height * 4);
  for (let k = 0; k < width * height; k++) {
    const value = Math.max(0, Math.min(255, Math.round(levels[k])));
    data.set([value, value, value, 255], 4 * k);
  }
  const jpeg = encode(new Image(width, height, { data, colorModel: 'RGBA' }).convertColor('RGB'), {
    format: 'jpg',
    encoderOptions: { quality },
  });
  const back = decode(jpeg).convertColor('GREY').getRawImage();
  return { width, height, grey: Uint8Array.from(back.data) };
}
