import { median } from '../math';
import { vertex } from './blobs';
import type { Outline } from './circle';
import { mapPoint, type Homography, type Point, type Site } from '../site';
import { greyAt, type GreyPicture } from './picture';

/** How a site's run of grey, from its middle to beyond its rim, compares with the usual ball's of the picture. */
export interface ProfileMatch {
  /** How much wider the run is than the usual one's, at which it fits best: the ball's size against the usual ball's. */
  readonly scale: number;
  /** What the best fit leaves, in the picture's own standard deviations over the median: a pad, a crumb or glare lies far out. */
  readonly misfitSds: number;
}

/** Rings to 1.35 of the usual radius are read, and those within 1.2 are fitted: past that the neighbours begin. Engineering estimates. */
const RING_STEP = 0.05;
const READ_RINGS = 27;
const FITTED_RINGS = 24;
const ANGLES = 16;
/** Scales tried; a ball of another size that is still soldered lies well within. */
const SCALE_STEP = 0.01;
const SCALES = Array.from({ length: 61 }, (_, k) => 0.7 + SCALE_STEP * k);
/** Runs of sound balls differ by so much of a ball’s contrast, however clean the picture. Engineering estimate. */
const LEAST_SCATTER = 0.02;
/** For a normal distribution, the standard deviation over the median of absolute differences. */
const PER_MEDIAN_OFF = 1.4826;

/**
 * Holds every site's run of grey against the usual ball's, stretched as fits best, brightness and contrast by least squares. All balls of
 * a picture share light, focus and surface: what one edge is taken for may jump between rim, halo and highlight, the whole run does not.
 * @param isBall those that the usual run is the median of. @param usualRadius pitches.
 */
export function matchProfiles(
  picture: GreyPicture,
  toPicture: Homography,
  { sites, outlines }: { readonly sites: readonly Site[]; readonly outlines: readonly Outline[] },
  usualRadius: number,
  isBall: (site: number) => boolean,
): ProfileMatch[] {
  const onSite = sites.map((site) => greyRun(picture, toPicture, site, usualRadius));
  const balls = onSite.filter((_, i) => isBall(i));
  const usual = Array.from({ length: READ_RINGS }, (_, k) =>
    median((balls.length > 0 ? balls : onSite).map((r) => r[k])),
  );
  const stretched = SCALES.map((scale) => ({ scale, run: normal(usualAt(usual, scale)) }));
  // A highlight beside the middle may have drawn the outline to it; a ball may as well stand beside its site.
  const fits = outlines.map(({ centre }, i) => {
    const [site, outline] = [onSite[i], greyRun(picture, toPicture, centre, usualRadius)].map((run) =>
      bestFit(run.slice(0, FITTED_RINGS), stretched),
    );
    return outline.correlation > site.correlation ? outline : site;
  });
  const middle = median(fits.map((f) => f.left));
  const scatter = PER_MEDIAN_OFF * median(fits.map((f) => Math.abs(f.left - middle))) + LEAST_SCATTER;
  return fits.map(({ scale, left }) => ({ scale, misfitSds: (left - middle) / scatter }));
}

/** The middle grey of each ring: a hair or a bridge on one side of it does not count. */
function greyRun(picture: GreyPicture, h: Homography, centre: Point, usualRadius: number): number[] {
  return Array.from({ length: READ_RINGS }, (_, k) => {
    const radius = (k + 0.5) * RING_STEP * usualRadius;
    return median(
      Array.from({ length: ANGLES }, (_, a) => {
        const angle = (2 * Math.PI * a) / ANGLES;
        const at = mapPoint(h, { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) });
        return greyAt(picture, at.x, at.y);
      }),
    );
  });
}

/** The usual run as a ball so many times as wide would show it, on the rings that are fitted. */
const usualAt = (usual: readonly number[], scale: number): number[] =>
  Array.from({ length: FITTED_RINGS }, (_, k) => {
    const at = Math.min(READ_RINGS - 1, Math.max(0, (k + 0.5) / scale - 0.5));
    const below = Math.min(READ_RINGS - 2, Math.floor(at));
    return usual[below] + (at - below) * (usual[below + 1] - usual[below]);
  });

/** Less its mean, and its power: what a least-squares fit of offset and gain needs of a run. */
function normal(run: readonly number[]): { readonly off: readonly number[]; readonly power: number } {
  const mean = run.reduce((s, v) => s + v, 0) / run.length;
  const off = run.map((v) => v - mean);
  return { off, power: off.reduce((s, v) => s + v * v, 0) };
}

/** The scale of the best correlation, between the tried ones by a parabola, and what it leaves of the run as a share of the usual contrast. */
function bestFit(
  run: readonly number[],
  stretched: readonly { readonly scale: number; readonly run: ReturnType<typeof normal> }[],
): { scale: number; correlation: number; left: number } {
  const own = normal(run);
  const products = stretched.map(({ run: usual }) => own.off.reduce((s, v, k) => s + v * usual.off[k], 0));
  const alike = products.map((p, k) => p / Math.sqrt(Math.max(1e-9, own.power * stretched[k].run.power)));
  const at = alike.indexOf(Math.max(...alike));
  const power = Math.max(1e-9, stretched[at].run.power);
  const between = at > 0 && at < alike.length - 1 ? vertex(alike[at - 1], alike[at], alike[at + 1]) : 0;
  return {
    scale: stretched[at].scale + between * SCALE_STEP,
    correlation: alike[at],
    left: Math.sqrt(Math.max(0, own.power - products[at] ** 2 / power) / power),
  };
}
