import { median } from '../math';
import type { Outline } from './circle';
import { mapPoint, type Homography, type Point } from '../site';
import { greyAt, type GreyPicture } from './picture';

/** Places across the gap, in pitches from the line between two centres. */
const ACROSS = [-0.04, 0, 0.04];
/** The share of the gap that is looked at, round its middle: the balls' own rims are blurred into the rest. */
const MIDDLE = [0.2, 0.35, 0.5, 0.65, 0.8];
/** Where nothing but the part is expected, seen from the middle of the gap: on both sides between four sites. */
const BESIDE = 0.5;

/**
 * How much the gap between two neighbours looks like solder: 0 as dark as the part beside it, 1 as bright as the balls.
 * @param pair their outlines; @param bright grey of a ball's body, @param dark grey of the part near them.
 */
export function gapLevel(picture: GreyPicture, toPicture: Homography, [a, b]: readonly [Outline, Outline]): number {
  const [dx, dy] = [b.centre.x - a.centre.x, b.centre.y - a.centre.y];
  const long = Math.hypot(dx, dy);
  const [ux, uy] = [dx / long, dy / long];
  const gap = Math.max(0.05, long - a.radius - b.radius);
  const at = (t: number, side: number): number => {
    const p = mapPoint(toPicture, { x: a.centre.x + t * ux - side * uy, y: a.centre.y + t * uy + side * ux });
    return greyAt(picture, p.x, p.y);
  };
  const solder = median(MIDDLE.map((share) => median(ACROSS.map((side) => at(a.radius + share * gap, side)))));
  const beside = [-BESIDE, BESIDE].map((side) => median([0.4, 0.5, 0.6].map((share) => at(share * long, side))));
  const dark = Math.max(...beside);
  const bright = Math.min(bodyGrey(picture, toPicture, a), bodyGrey(picture, toPicture, b));
  return (solder - dark) / Math.max(8, bright - dark);
}

/** The usual grey of a ball's outer half. */
export function bodyGrey(picture: GreyPicture, toPicture: Homography, { centre, radius }: Outline): number {
  const ring: Point[] = Array.from({ length: 16 }, (_, k) => ({
    x: centre.x + 0.75 * radius * Math.cos((k * Math.PI) / 8),
    y: centre.y + 0.75 * radius * Math.sin((k * Math.PI) / 8),
  }));
  return median(
    ring.map((at) => {
      const p = mapPoint(toPicture, at);
      return greyAt(picture, p.x, p.y);
    }),
  );
}
