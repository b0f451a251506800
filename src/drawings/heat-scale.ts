import { interpolateInferno } from 'd3-scale-chromatic';

/** One scale for all fields: perceptually even and safe for colour-blind eyes; it ends above every limit. */
export const SCALE_LOW_C = 25;
export const SCALE_HIGH_C = 260;

const TABLE = Array.from({ length: 256 }, (_, i) => {
  const text = interpolateInferno(0.06 + (0.9 * i) / 255);
  const [r, g, b] = text.startsWith('#')
    ? [1, 3, 5].map((at) => parseInt(text.slice(at, at + 2), 16))
    : text.match(/\d+/g)!.map(Number);
  return [r, g, b] as const;
});

/** Red, green, blue of a temperature. */
export function heatColour(tempC: number): readonly [number, number, number] {
  const share = (tempC - SCALE_LOW_C) / (SCALE_HIGH_C - SCALE_LOW_C);
  return TABLE[Math.min(255, Math.max(0, Math.round(share * 255)))];
}

/** The scale as a CSS gradient, for the legend. */
export const heatGradient = (): string =>
  `linear-gradient(to right, ${Array.from({ length: 12 }, (_, i) => `rgb(${TABLE[Math.round((i * 255) / 11)].join(',')})`).join(',')})`;
