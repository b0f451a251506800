import { median } from '../math';
import { vertex } from './blobs';
import { HALF, STEP, dropAt, type Outline } from './circle';
import { mapPoint, type Homography } from '../site';
import { greyAt, type GreyPicture } from './picture';

/** The run of grey across the edge: from inside, where highlights have ended, to the part beside the ball. In pitches. */
const INSIDE = 0.06;
const OUTSIDE = 0.11;
const RAYS = 24;
const MOST_BALLS = 60;
/** Blurs tried, pitches; and how much the ball's middle is brighter than its rim, against what the rim is over the part. */
const BLURS = Array.from({ length: 14 }, (_, k) => 0.005 + 0.0055 * k);
const DOMES = [0, 0.5, 1, 1.5, 2.5, 4];
/** The sphere and its blur are summed at so many places per step. */
const FINE = 4;

/**
 * How far inside the true edge the steepest drop lies, pitches: a ball darkens towards its rim, and blur mixes that with the
 * step at the rim. Found once for a picture, from the run of grey across all its balls' edges, against blurred spheres
 * (part + step at the rim · (1 + dome · √(1 − r²/R²))); blur and dome by trial, the two levels by least squares.
 */
export function edgeShift(picture: GreyPicture, toPicture: Homography, outlines: readonly Outline[]): number {
  const some = outlines.slice(0, MOST_BALLS);
  if (some.length === 0) return 0;
  const count = Math.round((INSIDE + OUTSIDE) / STEP) + 1;
  const seen = Array.from({ length: count }, (_, k) =>
    median(some.map((outline) => ringMedian(picture, toPicture, outline, outline.radius - INSIDE + k * STEP))),
  );
  const radius = median(some.map((o) => o.radius));
  let best = { error: Infinity, shift: 0 };
  for (const blur of BLURS) {
    for (const dome of DOMES) {
      const shift = radius - steepest(radius, blur, dome);
      const error = misfit(seen, blurredSphere(radius - INSIDE, count, radius + shift, blur, dome));
      if (error < best.error) best = { error, shift };
    }
  }
  return best.shift;
}

function ringMedian(picture: GreyPicture, h: Homography, { centre }: Outline, radius: number): number {
  return median(
    Array.from({ length: RAYS }, (_, k) => {
      const angle = (2 * Math.PI * k) / RAYS;
      const at = mapPoint(h, { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) });
      return greyAt(picture, at.x, at.y);
    }),
  );
}

/** Where a blurred sphere's grey drops most steeply, by the same measure as in a picture. */
function steepest(radius: number, blur: number, dome: number): number {
  const from = 0.6 * radius;
  const run = blurredSphere(from, Math.round(radius / STEP), radius, blur, dome);
  const drops = run.map((_, k) => (k < HALF || k + HALF >= run.length ? 0 : dropAt(run, k)));
  const top = drops.indexOf(Math.max(...drops));
  return from + (top + vertex(drops[top - 1], drops[top], drops[top + 1])) * STEP;
}

/** What is left of the run of grey when the best two levels are put to the sphere's run. */
function misfit(seen: readonly number[], run: readonly number[]): number {
  const n = seen.length;
  const [meanSeen, meanRun] = [seen, run].map((list) => list.reduce((s, v) => s + v, 0) / n);
  const product = run.reduce((s, v, k) => s + (v - meanRun) * (seen[k] - meanSeen), 0);
  const power = run.reduce((s, v) => s + (v - meanRun) ** 2, 0);
  // A ball is brighter than the part.
  if (product <= 0) return Infinity;
  return seen.reduce((s, v, k) => s + (v - meanSeen - (product / power) * (run[k] - meanRun)) ** 2, 0);
}

/** A disc with a dome on it, blurred, along the run of grey: 0 on the part. */
function blurredSphere(from: number, count: number, radius: number, blur: number, dome: number): number[] {
  const reach = Math.ceil((3 * blur * FINE) / STEP);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, j) => {
    const d = ((j - reach) * STEP) / FINE;
    return Math.exp(-(d * d) / (2 * blur * blur));
  });
  const total = weights.reduce((s, w) => s + w, 0);
  return Array.from({ length: count }, (_, k) => {
    const sum = weights.reduce((s, w, j) => {
      const share = Math.abs(from + k * STEP + ((j - reach) * STEP) / FINE) / radius;
      return share >= 1 ? s : s + w * (1 + dome * Math.sqrt(1 - share * share));
    }, 0);
    return sum / total;
  });
}
