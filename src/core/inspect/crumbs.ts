import { Mask, fromMask } from 'image-js';
import type { Outline } from './circle';
import { mapPoint, type Homography, type Point, type Site, type SitePattern } from '../site';
import { greyAt, type GreyPicture } from './picture';

/** The pattern is looked over in steps of a sixteenth of a pitch, and half a pitch beyond its outer sites. */
const STEPS_PER_PITCH = 16;
const BEYOND = 0.6;
/** Nothing nearer to a ball's edge is looked at: blur and shine reach so far. In pitches. */
const CLEAR_OF_BALLS = 0.07;
const CLEAR_OF_BRIDGES = 0.25;
/** As bright, between the part and the balls' rims, as solder is. */
const SOLDER_FROM = 0.5;
/** The smallest crumb told, in pitches across. Engineering estimate: a tenth of a pitch bridges nothing. */
const LEAST_ACROSS = 0.1;

/** Bright bits that are no ball and no bridge, in the pattern's frame. */
export function findCrumbs(
  picture: GreyPicture,
  toPicture: Homography,
  pattern: SitePattern,
  sites: readonly Site[],
  outlines: readonly Outline[],
  bridges: readonly (readonly [number, number])[],
  solderGrey: number,
): Point[] {
  const columns = Math.round((pattern.columns - 1 + 2 * BEYOND) * STEPS_PER_PITCH) + 1;
  const rows = Math.round((pattern.rows - 1 + 2 * BEYOND) * STEPS_PER_PITCH) + 1;
  const corner = { x: -(pattern.columns - 1) / 2 - BEYOND, y: -(pattern.rows - 1) / 2 - BEYOND };
  const placeOf = (column: number, row: number): Point => ({
    x: corner.x + column / STEPS_PER_PITCH,
    y: corner.y + row / STEPS_PER_PITCH,
  });
  const level = new Float32Array(columns * rows).fill(NaN);
  const at = new Map(sites.map((site, i) => [site.index, outlines[i]]));
  const isClear = (place: Point): boolean => {
    const c = Math.round(place.x + (pattern.columns - 1) / 2);
    const r = Math.round(place.y + (pattern.rows - 1) / 2);
    const ball =
      c >= 0 && c < pattern.columns && r >= 0 && r < pattern.rows ? at.get(r * pattern.columns + c) : undefined;
    if (ball && Math.hypot(place.x - ball.centre.x, place.y - ball.centre.y) < ball.radius + CLEAR_OF_BALLS)
      return false;
    return bridges.every(([a, b]) => {
      const [p, q] = [outlines[a].centre, outlines[b].centre];
      return Math.hypot(place.x - (p.x + q.x) / 2, place.y - (p.y + q.y) / 2) > CLEAR_OF_BRIDGES + 0.25;
    });
  };
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const place = placeOf(column, row);
      if (!isClear(place)) continue;
      const p = mapPoint(toPicture, place);
      level[row * columns + column] = greyAt(picture, p.x, p.y);
    }
  }
  const mask = new Mask(columns, rows);
  const dark = darkGround(level, columns);
  for (let i = 0; i < level.length; i++) {
    if (level[i] > dark[i] + SOLDER_FROM * Math.max(12, solderGrey - dark[i])) mask.setBitByIndex(i, true);
  }
  const least = (Math.PI / 4) * (LEAST_ACROSS * STEPS_PER_PITCH) ** 2;
  const bits = fromMask(mask)
    .getRois({ kind: 'white', minSurface: Math.ceil(least) })
    .map((roi) => placeOf(roi.centroid.column, roi.centroid.row));
  return bits.filter((bit, i) => bits.slice(0, i).every((b) => Math.hypot(b.x - bit.x, b.y - bit.y) > ONE_BIT));
}

/** Pieces nearer to each other are one bit, in pitches. */
const ONE_BIT = 0.35;

/** The part's own grey near each place: the darker quarter of what is seen within a pitch, square by square. */
function darkGround(level: Float32Array, columns: number): Float32Array {
  const across = Math.ceil(columns / STEPS_PER_PITCH);
  const squares = new Map<number, number[]>();
  const squareOf = (i: number): number =>
    Math.floor(Math.floor(i / columns) / STEPS_PER_PITCH) * across + Math.floor((i % columns) / STEPS_PER_PITCH);
  level.forEach((value, i) => {
    if (Number.isNaN(value)) return;
    const list = squares.get(squareOf(i));
    if (list) list.push(value);
    else squares.set(squareOf(i), [value]);
  });
  const quarter = new Map([...squares].map(([key, list]) => [key, list.sort((a, b) => a - b)[list.length >> 2]]));
  return Float32Array.from(level, (_, i) => quarter.get(squareOf(i)) ?? 255);
}
