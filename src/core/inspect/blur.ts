import type { GreyPicture } from './picture';

/** A grey field blurred by a Gaussian, along rows and then along columns; the edge goes on outside. @param sigmaPx over 0. */
export function blurred(field: Float32Array, width: number, height: number, sigmaPx: number): Float32Array {
  const reach = Math.ceil(3 * sigmaPx);
  const kernel = Float32Array.from({ length: 2 * reach + 1 }, (_, k) =>
    Math.exp(-((k - reach) ** 2) / (2 * sigmaPx ** 2)),
  );
  const total = kernel.reduce((s, k) => s + k, 0);
  kernel.forEach((k, i) => (kernel[i] = k / total));
  const across = alongLines(field, kernel, { count: width, step: 1, lines: height, lineStep: width });
  return alongLines(across, kernel, { count: height, step: width, lines: width, lineStep: 1 });
}

function alongLines(
  from: Float32Array,
  kernel: Float32Array,
  { count, step, lines, lineStep }: { count: number; step: number; lines: number; lineStep: number },
): Float32Array {
  const to = new Float32Array(from.length);
  const reach = kernel.length >> 1;
  const padded = new Float32Array(count + 2 * reach);
  for (let line = 0; line < lines; line++) {
    const at = line * lineStep;
    for (let i = 0; i < count; i++) padded[reach + i] = from[at + i * step];
    padded.fill(padded[reach], 0, reach);
    padded.fill(padded[reach + count - 1], reach + count);
    for (let i = 0; i < count; i++) {
      let sum = 0;
      for (let k = 0; k < kernel.length; k++) sum += kernel[k] * padded[i + k];
      to[at + i * step] = sum;
    }
  }
  return to;
}

/** A picture blurred alike. */
export const blurredPicture = ({ width, height, grey }: GreyPicture, sigmaPx: number): GreyPicture => ({
  width,
  height,
  grey: Uint8Array.from(blurred(new Float32Array(grey), width, height, sigmaPx), Math.round),
});
