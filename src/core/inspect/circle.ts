import { median } from '../math';
import { vertex } from './blobs';
import { mapPoint, type Homography, type Point } from '../site';
import { greyAt, type GreyPicture } from './picture';

/** A ball's outline as found round a site. Lengths in pitches, in the pattern's frame. */
export interface Outline {
  readonly centre: Point;
  readonly radius: number;
  /** Standard deviation of the radius from the scatter of its edge points. */
  readonly radiusSd: number;
  /** Share of the rays on which the edge lies where the circle says. */
  readonly support: number;
  /** Mean drop of grey across the edge. */
  readonly edge: number;
}

/** Numbers of this file without another source were found by trial on drawn pictures of known truth. */
const RAYS = 48;
/** From one place on a ray to the next, pitches. */
export const STEP = 0.0125;
/** Half the width over which a drop of grey is taken, steps. */
export const HALF = 2;
const ROUNDS = 3;
/** Edge points farther from the circle than this are somebody else's: a neighbour's, a hair's. In pitches. */
const OFF_CIRCLE = 0.035;

/** The rays' directions, once. */
const COSINES = Array.from({ length: RAYS }, (_, k) => Math.cos((2 * Math.PI * k) / RAYS));
const SINES = Array.from({ length: RAYS }, (_, k) => Math.sin((2 * Math.PI * k) / RAYS));

/**
 * The circle round a spot at which grey drops: along each ray the strongest drop near the radius that most rays agree on,
 * a circle through those points by least squares, and again from its centre.
 * @param expected radius that the ball should have, pitches. @param range between which shares of it is looked.
 */
export function findOutline(
  picture: GreyPicture,
  toPicture: Homography,
  start: Point,
  expected: number,
  range: readonly [number, number] = [0.65, 1.35],
): Outline {
  let outline: Outline = { centre: start, radius: expected, radiusSd: Infinity, support: 0, edge: 0 };
  for (let round = 0; round < ROUNDS; round++) {
    const [low, high] = [range[0] * expected, range[1] * expected];
    const drops = dropsAlongRays(picture, toPicture, outline.centre, [
      Math.max(HALF, Math.round(low / STEP) - BESIDE),
      Math.round(high / STEP) + BESIDE,
    ]);
    const near = round === 0 ? agreedRadius(drops, low, high) : outline.radius;
    const points = edgePoints(drops, Math.max(low, near - WINDOW[round]), Math.min(high, near + WINDOW[round]));
    outline = circleThrough(points, outline.centre, near);
  }
  return outline;
}

/** Steps beyond the range of radii that the search for the agreed one and its parabola need. */
const BESIDE = 3;
/** How far from the agreed radius an edge is looked for, round by round: a ball may stand beside its site. */
const WINDOW = [0.09, 0.06, 0.05];

/** How much darker it gets round a place of a run of grey. */
export const dropAt = (grey: ArrayLike<number>, k: number): number =>
  (2 * (grey[k - 2] - grey[k + 2]) + (grey[k - 1] - grey[k + 1])) / 3;

/** So near to one place the map to the picture is a straight one: a pitch is small against the camera's distance. */
const NEAR = 0.1;

/** Ray by ray, how much darker it gets at each step of a range round a place. */
function dropsAlongRays(
  picture: GreyPicture,
  h: Homography,
  centre: Point,
  [from, to]: readonly [number, number],
): Float32Array[] {
  const at = mapPoint(h, centre);
  const right = mapPoint(h, { x: centre.x + NEAR, y: centre.y });
  const down = mapPoint(h, { x: centre.x, y: centre.y + NEAR });
  const [ax, ay] = [(right.x - at.x) / NEAR, (right.y - at.y) / NEAR];
  const [bx, by] = [(down.x - at.x) / NEAR, (down.y - at.y) / NEAR];
  const grey = new Float32Array(to + HALF + 1);
  return COSINES.map((cos, ray) => {
    const [dx, dy] = [STEP * (cos * ax + SINES[ray] * bx), STEP * (cos * ay + SINES[ray] * by)];
    for (let k = from - HALF; k <= to + HALF; k++) grey[k] = greyAt(picture, at.x + k * dx, at.y + k * dy);
    const drops = new Float32Array(to + 1);
    for (let k = from; k <= to; k++) drops[k] = dropAt(grey, k);
    return drops;
  });
}

/** A drop so much weaker than the strongest is still the ball's edge when it lies outside: highlights drop more steeply. */
const OUTER_COUNTS = 0.3;

/** The outermost radius at which the rays drop together. */
function agreedRadius(drops: readonly Float32Array[], low: number, high: number): number {
  const [first, last] = [Math.round(low / STEP) - 1, Math.round(high / STEP) + 1];
  const together = Array.from({ length: last - first + 1 }, (_, k) => {
    // The middle half: neither the ray through a neighbour nor the one through a hair decides.
    const sorted = drops.map((d) => d[first + k] + d[first + k - 1] + d[first + k + 1]).sort((a, b) => a - b);
    return sorted.slice(RAYS / 4, (3 * RAYS) / 4).reduce((s, v) => s + v, 0);
  });
  const enough = OUTER_COUNTS * Math.max(...together);
  for (let k = together.length - 2; k > 0; k--) {
    if (together[k] >= enough && together[k] >= together[k - 1] && together[k] > together[k + 1])
      return (first + k) * STEP;
  }
  return (first + together.indexOf(Math.max(...together))) * STEP;
}

interface EdgePoint {
  readonly ray: number;
  readonly r: number;
  readonly drop: number;
}

function edgePoints(drops: readonly Float32Array[], low: number, high: number): EdgePoint[] {
  return drops.map((d, ray) => {
    let at = Math.round(low / STEP);
    for (let k = at; k <= Math.round(high / STEP); k++) if (d[k] > d[at]) at = k;
    return { ray, r: (at + vertex(d[at - 1], d[at], d[at + 1])) * STEP, drop: d[at] };
  });
}

/** r = R + x cos + y sin: a circle whose centre is a little off, by least squares with points off the circle left out. */
function circleThrough(points: readonly EdgePoint[], centre: Point, near: number): Outline {
  let fit = { x: 0, y: 0, radius: median(points.map((p) => p.r)) };
  let kept = points;
  for (let k = 0; k < ROUNDS; k++) {
    kept = points.filter((p) => p.drop > 0 && Math.abs(p.r - predicted(fit, p.ray)) < OFF_CIRCLE);
    if (kept.length < RAYS / 4) break;
    fit = fitCircle(kept);
  }
  const sum = kept.reduce((s, p) => s + (p.r - predicted(fit, p.ray)) ** 2, 0);
  const drops = points.map((p) => (Math.abs(p.r - predicted(fit, p.ray)) < OFF_CIRCLE ? Math.max(0, p.drop) : 0));
  return {
    centre: { x: centre.x + fit.x, y: centre.y + fit.y },
    radius: kept.length >= RAYS / 4 ? fit.radius : near,
    // Neighbouring rays see the same pixels: a third of them count.
    radiusSd: kept.length > 3 ? Math.sqrt(sum / (kept.length - 3) / (kept.length / 3)) : Infinity,
    support: kept.length / RAYS,
    edge: drops.reduce((s, d) => s + d, 0) / RAYS,
  };
}

const predicted = (fit: { x: number; y: number; radius: number }, ray: number): number =>
  fit.radius + fit.x * COSINES[ray] + fit.y * SINES[ray];

/** The normal equations of three unknowns, by Cramer's rule. */
function fitCircle(points: readonly EdgePoint[]): { x: number; y: number; radius: number } {
  const s = { n: 0, c: 0, s: 0, cc: 0, cs: 0, ss: 0, r: 0, rc: 0, rs: 0 };
  for (const { ray, r } of points) {
    const [cos, sin] = [COSINES[ray], SINES[ray]];
    s.n += 1;
    s.c += cos;
    s.s += sin;
    s.cc += cos * cos;
    s.cs += cos * sin;
    s.ss += sin * sin;
    s.r += r;
    s.rc += r * cos;
    s.rs += r * sin;
  }
  const det = (a: number[]): number =>
    a[0] * (a[4] * a[8] - a[5] * a[7]) - a[1] * (a[3] * a[8] - a[5] * a[6]) + a[2] * (a[3] * a[7] - a[4] * a[6]);
  const whole = det([s.n, s.c, s.s, s.c, s.cc, s.cs, s.s, s.cs, s.ss]);
  return {
    radius: det([s.r, s.c, s.s, s.rc, s.cc, s.cs, s.rs, s.cs, s.ss]) / whole,
    x: det([s.n, s.r, s.s, s.c, s.rc, s.cs, s.s, s.rs, s.ss]) / whole,
    y: det([s.n, s.c, s.r, s.c, s.cc, s.rc, s.s, s.cs, s.rs]) / whole,
  };
}
