import { median } from '../math';
import type { Outline } from './circle';
import { mapPoint, type Homography } from '../site';
import { greyAt, type GreyPicture } from './picture';

const RINGS = Array.from({ length: 10 }, (_, k) => 0.05 + 0.095 * k);
const ANGLES = 24;

export interface Face {
  /**
   * How much of the usual ball's shading is there: 1 for a ball, about 0 for a flat pad. The share of its own run of grey
   * from middle to rim that runs like the usual one's.
   */
  readonly shadingCorrelation: number;
  /** Grey against the usual ball's. */
  readonly brightness: number;
  /** True where light has filled it to white, so that its shading cannot be seen. */
  readonly dazzled: boolean;
}

/** So near to the brightest grey on any ball nothing more can be told, and so many rings have to be so. Estimates. */
const NEAR_WHITE = 4;
const DAZZLED_SHARE = 0.3;

/** Each face against the usual one: ring by ring the median of those that have an outline all round. */
export function compareFaces(
  picture: GreyPicture,
  toPicture: Homography,
  outlines: readonly Outline[],
  isSound: (outline: Outline) => boolean,
): Face[] {
  const runs = outlines.map((outline) => ringGreys(picture, toPicture, outline));
  const sound = runs.filter((_, i) => isSound(outlines[i]));
  const pool = sound.length > 0 ? sound : runs;
  // Brightness taken out first, so that light falling off across the picture does no harm.
  const usual = centred(RINGS.map((_, k) => median(pool.map((run) => centred(run)[k]))));
  const usualMean = median(pool.map(mean));
  const white = runs.reduce((most, run) => Math.max(most, ...run), 0) - NEAR_WHITE;
  const power = usual.reduce((s, v) => s + v * v, 0);
  return runs.map((run) => ({
    shadingCorrelation: centred(run).reduce((s, v, k) => s + v * usual[k], 0) / Math.max(1e-9, power),
    brightness: mean(run) / Math.max(1e-9, usualMean),
    dazzled: run.filter((grey) => grey >= white).length >= DAZZLED_SHARE * run.length,
  }));
}

/** The usual grey on each ring inside an outline: a hair or a speck on it does not count. */
function ringGreys(picture: GreyPicture, toPicture: Homography, { centre, radius }: Outline): number[] {
  return RINGS.map((share) =>
    median(
      Array.from({ length: ANGLES }, (_, a) => {
        const angle = (2 * Math.PI * a) / ANGLES;
        const at = mapPoint(toPicture, {
          x: centre.x + share * radius * Math.cos(angle),
          y: centre.y + share * radius * Math.sin(angle),
        });
        return greyAt(picture, at.x, at.y);
      }),
    ),
  );
}

const mean = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0) / list.length;

/** Less its own mean, the rings weighed alike. */
const centred = (list: readonly number[]): number[] => {
  const middle = mean(list);
  return list.map((v) => v - middle);
};
