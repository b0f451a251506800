import { normalDraw, type Random } from '../math';
import { blurred } from './blur';
import { inverse, mapPoint, sitesOf, type Homography, type Point, type SitePattern } from '../site';
import type { GreyPicture } from './picture';

/** What stands on a site. Lengths in pitches. */
export interface DrawnBall {
  readonly diameter: number;
  /** Where its centre is, from the site. */
  readonly offset: Point;
  /** 1 shines, 0 is dull all over. */
  readonly shine: number;
}

/** What a camera adds to what is there. */
export interface View {
  readonly toPicture: Homography;
  readonly width: number;
  readonly height: number;
  readonly blurPx: number;
  readonly noise: number;
}

/** What lies over the thing looked at. Lengths in the frame's units. */
export interface Cover {
  readonly hairs: readonly { readonly path: readonly [Point, Point, Point]; readonly width: number }[];
  readonly glares: readonly (Point & { readonly radius: number; readonly level: number })[];
  /** Light at the corners against the middle: share per unit along x and y. */
  readonly slope: Point;
}

/** A drawn scene with everything about it known. Lengths in pitches, places in the pattern's frame. */
export interface Scene extends View, Cover {
  readonly pattern: SitePattern;
  /** Site by site in the order of `sitesOf`; null where only the pad is left. */
  readonly balls: readonly (DrawnBall | null)[];
  readonly padDiameter: number;
  /** Solder between two sites, by their positions in `sitesOf`, and its width. */
  readonly bridges: readonly { readonly a: number; readonly b: number; readonly width: number }[];
  readonly debris: readonly (Point & { readonly radius: number })[];
  readonly substrate: number;
}

/** How bright things are under a ring light, 0 to 1: engineering estimates for a picture that looks like one. */
const PAD_LEVEL = 0.5;
const LIMB_LEVEL = 0.4;
const BODY_LEVEL = 0.32;
/** The ring light is mirrored where the ball's surface leans so far, degrees, and over so many. */
const RING_LEAN_DEG = 24;
const RING_WIDTH_DEG = 8;
const HAIR_LEVEL = 0.08;
const CRUMB_LEVEL = 0.75;
/** Each pixel is the mean of so many samples squared. */
const SAMPLES = 2;

/** Draws the scene as a microscope's camera would see it. */
export const renderScene = (scene: Scene, random: Random): GreyPicture =>
  photograph(scene, covered(scene, shader(scene)), random);

/** A picture of brightness over a plane, 0 to 1, with the camera's blur and noise. */
export function photograph(view: View, level: (at: Point) => number, random: Random): GreyPicture {
  const { width, height } = view;
  const toPlane = inverse(view.toPicture);
  const light = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let k = 0; k < SAMPLES * SAMPLES; k++) {
        const dx = ((k % SAMPLES) + 0.5) / SAMPLES - 0.5;
        const dy = (Math.floor(k / SAMPLES) + 0.5) / SAMPLES - 0.5;
        sum += level(mapPoint(toPlane, { x: x + dx, y: y + dy }));
      }
      light[y * width + x] = sum / (SAMPLES * SAMPLES);
    }
  }
  const grey = new Uint8Array(width * height);
  const seen = blurred(light, width, height, view.blurPx);
  for (let i = 0; i < grey.length; i++) {
    grey[i] = Math.max(0, Math.min(255, Math.round(255 * seen[i] + view.noise * normalDraw(random))));
  }
  return { width, height, grey };
}

/** Brightness with hairs over it, light falling off and glare. */
export function covered({ hairs, glares, slope }: Cover, below: (at: Point) => number): (at: Point) => number {
  const strands = hairs.flatMap(({ path, width }) =>
    along(path).flatMap((b, k, points) => (k > 0 ? [{ a: points[k - 1], b, radius: width / 2 }] : [])),
  );
  return (at) => {
    let level = below(at);
    for (const { a, b, radius } of strands) {
      const beside = at.x < Math.min(a.x, b.x) - radius || at.x > Math.max(a.x, b.x) + radius;
      if (!beside && fromSegment(at, a, b) < radius) level = HAIR_LEVEL;
    }
    level *= 1 + slope.x * at.x + slope.y * at.y;
    for (const glare of glares) {
      level += glare.level * Math.exp(-((at.x - glare.x) ** 2 + (at.y - glare.y) ** 2) / (2 * glare.radius ** 2));
    }
    return level;
  };
}

/** Brightness of a place in the pattern's frame. */
function shader(scene: Scene): (at: Point) => number {
  const { pattern, balls, bridges, debris, substrate } = scene;
  const { columns, rows } = pattern;
  const sites = sitesOf(pattern);
  const bySite = new Map(sites.map((s, i) => [s.index, i]));
  const centres = sites.map((s, i): Point => ({
    x: s.x + (balls[i]?.offset.x ?? 0),
    y: s.y + (balls[i]?.offset.y ?? 0),
  }));
  return (at) => {
    const [c, r] = [Math.round(at.x + (columns - 1) / 2), Math.round(at.y + (rows - 1) / 2)];
    let level = substrate + 0.02 * Math.sin(9 * at.x) * Math.sin(11 * at.y);
    for (const { a, b, width } of bridges) {
      const d = fromSegment(at, centres[a], centres[b]);
      if (d < width / 2) level = ballLevel(d / (width / 2), 0.7);
    }
    const site = c >= 0 && c < columns && r >= 0 && r < rows ? bySite.get(r * columns + c) : undefined;
    if (site !== undefined) {
      const ball = balls[site];
      const d = Math.hypot(at.x - centres[site].x, at.y - centres[site].y);
      if (ball && d < ball.diameter / 2) level = Math.max(level, ballLevel((2 * d) / ball.diameter, ball.shine));
      if (!ball && d < scene.padDiameter / 2) level = PAD_LEVEL + 0.04 * Math.sin(31 * at.x + 17 * at.y);
    }
    for (const crumb of debris) {
      if (Math.hypot(at.x - crumb.x, at.y - crumb.y) < crumb.radius) level = CRUMB_LEVEL;
    }
    return level;
  };
}

/** A ball at a share of its radius: its body, and the ring light mirrored where the surface leans that way. */
export function ballLevel(share: number, shine: number): number {
  const upright = Math.sqrt(Math.max(0, 1 - share * share));
  const leanDeg = (Math.acos(upright) * 180) / Math.PI;
  const ring = Math.exp(-(((leanDeg - RING_LEAN_DEG) / RING_WIDTH_DEG) ** 2));
  return LIMB_LEVEL + BODY_LEVEL * upright * (0.6 + 0.4 * shine) + 0.5 * shine * ring;
}

const HAIR_PIECES = 12;

/** Points along a bent hair. */
function along([a, b, c]: readonly [Point, Point, Point]): Point[] {
  return Array.from({ length: HAIR_PIECES + 1 }, (_, k) => {
    const t = k / HAIR_PIECES;
    const [p, q, s] = [(1 - t) ** 2, 2 * t * (1 - t), t * t];
    return { x: p * a.x + q * b.x + s * c.x, y: p * a.y + q * b.y + s * c.y };
  });
}

/** Distance from a segment. */
export function fromSegment(at: Point, a: Point, b: Point): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const t = Math.max(0, Math.min(1, ((at.x - a.x) * dx + (at.y - a.y) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(at.x - a.x - t * dx, at.y - a.y - t * dy);
}
