import { blurred } from './blur';
import type { Point } from '../site';
import type { GreyPicture } from './picture';

export interface Blob extends Point {
  /** How much brighter it is than what is around it, in grey levels. */
  readonly strength: number;
}

/** Widths of the two blurs whose difference answers to a ball, in pitches: a ball takes a half to two thirds of a pitch. */
const INNER = 0.16;
const OUTER = 0.3;
/** Two balls are never nearer than this, in pitches. */
const APART = 0.45;

/** Bright round spots of about a ball's size, strongest first. */
export function findBlobs(picture: GreyPicture, pitchPx: number, most: number): Blob[] {
  const { width, height } = picture;
  const response = differenceOfBlurs(picture, pitchPx);
  const reach = Math.max(1, Math.round(APART * pitchPx));
  const found: Blob[] = [];
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      const value = response[at];
      if (value <= 0 || value < response[at - 1] || value <= response[at + 1]) continue;
      if (value < response[at - width] || value <= response[at + width]) continue;
      if (!isHighest(response, width, height, x, y, reach)) continue;
      found.push({
        x: x + vertex(response[at - 1], value, response[at + 1]),
        y: y + vertex(response[at - width], value, response[at + width]),
        strength: value,
      });
    }
  }
  return found.sort((a, b) => b.strength - a.strength).slice(0, most);
}

function differenceOfBlurs({ width, height, grey }: GreyPicture, pitchPx: number): Float32Array {
  const field = new Float32Array(grey);
  const [inner, outer] = [INNER, OUTER].map((share) => blurred(field, width, height, share * pitchPx));
  return inner.map((value, i) => value - outer[i]);
}

function isHighest(list: Float32Array, width: number, height: number, x: number, y: number, reach: number): boolean {
  const value = list[y * width + x];
  for (let v = Math.max(0, y - reach); v <= Math.min(height - 1, y + reach); v++) {
    for (let u = Math.max(0, x - reach); u <= Math.min(width - 1, x + reach); u++) {
      if (list[v * width + u] > value && (u - x) ** 2 + (v - y) ** 2 <= reach * reach) return false;
    }
  }
  return true;
}

/** Where a parabola through three neighbours is highest, from the middle one. */
export function vertex(before: number, here: number, after: number): number {
  const curve = before - 2 * here + after;
  return curve < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * curve))) : 0;
}
