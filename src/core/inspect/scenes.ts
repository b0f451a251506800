import type { Random } from '../math';
import { neighbourPairs, sitesOf, type Homography, type Point, type Site, type SitePattern } from '../site';
import type { Cover, DrawnBall, Scene } from './render';

/** How hard a drawn picture is. The most of each; what a picture gets is drawn below that. */
export interface Trouble {
  /** Share of the sites with a ball missing, bridged, too large or too small, or beside its site. */
  readonly defects: number;
  readonly tiltDeg: number;
  readonly blurPx: number;
  readonly noise: number;
  /** Share by which the light falls off across the picture. */
  readonly slope: number;
  readonly hairs: number;
  readonly glares: number;
  readonly debris: number;
}

/** A microscope that is not well set up. Engineering estimates of what comes over a bench. */
export const HARD: Trouble = {
  defects: 0.1,
  tiltDeg: 8,
  blurPx: 1.2,
  noise: 7,
  slope: 0.5,
  hairs: 2,
  glares: 2,
  debris: 2,
};

/** Nominal sizes of a ball and of its pad on the part, in pitches. */
export interface BallSizes {
  readonly ball: number;
  readonly pad: number;
}

/** Camera distance in widths of the pattern: what gives a tilted picture its perspective. Engineering estimate. */
export const CAMERA_WIDTHS = 4;
const MARGIN_PITCHES = 1.2;

/**
 * Draws a scene: a pattern seen from a tilted camera, balls of nearly one size, and defects of known kind and place.
 * @param pitchPx pixels per pitch in the middle of the picture.
 */
export function drawScene(
  pattern: SitePattern,
  sizes: BallSizes,
  pitchPx: number,
  random: Random,
  trouble: Trouble = HARD,
): Scene {
  const between = (low: number, high: number): number => low + (high - low) * random();
  const sites = sitesOf(pattern);
  const [across, down] = [pattern.columns - 1 + 2 * MARGIN_PITCHES, pattern.rows - 1 + 2 * MARGIN_PITCHES];
  const turnDeg = between(-trouble.tiltDeg, trouble.tiltDeg);
  const lean = { x: between(-trouble.tiltDeg, trouble.tiltDeg), y: between(-trouble.tiltDeg, trouble.tiltDeg) };
  const [width, height] = [Math.round(across * pitchPx * 1.12), Math.round(down * pitchPx * 1.12)];
  const toPicture = cameraView(pitchPx, turnDeg, lean, CAMERA_WIDTHS * Math.max(across, down), {
    x: width / 2,
    y: height / 2,
  });
  const { balls, bridges } = drawBalls(sites, sizes, random, trouble.defects);
  return {
    pattern,
    toPicture,
    width,
    height,
    balls,
    bridges,
    padDiameter: sizes.pad,
    debris: Array.from({ length: some(trouble.debris, random) }, () => crumbBetween(pattern, random)),
    ...drawCover([across, down], 1, random, trouble),
    substrate: between(0.1, 0.22),
    blurPx: Math.max(0.4, between(0.4, trouble.blurPx)),
    noise: between(1, trouble.noise),
  };
}

const some = (most: number, random: Random): number => Math.floor(random() * (most + 1));

/** Hairs, glare and light that falls off, over a field. @param unit a pitch in the frame's units. */
export function drawCover(
  [across, down]: readonly [number, number],
  unit: number,
  random: Random,
  trouble: Trouble,
): Cover {
  const between = (low: number, high: number): number => low + (high - low) * random();
  const anywhere = (): Point => ({ x: between(-across / 2, across / 2), y: between(-down / 2, down / 2) });
  return {
    hairs: Array.from({ length: some(trouble.hairs, random) }, () => ({
      path: [anywhere(), anywhere(), anywhere()] as const,
      width: between(0.05, 0.1) * unit,
    })),
    glares: Array.from({ length: some(trouble.glares, random) }, () => ({
      ...anywhere(),
      radius: between(0.5, 1.5) * unit,
      level: between(0.1, 0.35),
    })),
    slope: { x: between(-trouble.slope, trouble.slope) / across, y: between(-trouble.slope, trouble.slope) / down },
  };
}

/** A pinhole camera over a plane: turned in its plane, leaned both ways, seen from a distance in pitches. */
export function cameraView(pitchPx: number, turnDeg: number, lean: Point, distance: number, middle: Point): Homography {
  const rad = Math.PI / 180;
  const [c, s] = [Math.cos(turnDeg * rad), Math.sin(turnDeg * rad)];
  const [cx, sx] = [Math.cos(lean.x * rad), Math.sin(lean.x * rad)];
  const [cy, sy] = [Math.cos(lean.y * rad), Math.sin(lean.y * rad)];
  // Turned about the axis towards the camera, then about the picture's upright axis, then about its level one.
  const x = [cx * c, -cx * s];
  const y = [cy * s + sy * sx * c, cy * c - sy * sx * s];
  const z = [(sx * cy * c - sy * s) / distance, (-sx * cy * s - sy * c) / distance];
  const row = (by: readonly number[], at: number): number[] => [
    pitchPx * by[0] - at * z[0],
    pitchPx * by[1] - at * z[1],
    at,
  ];
  return [...row(x, middle.x), ...row(y, middle.y), -z[0], -z[1]];
}

/** Balls of one part differ by about half of this share, one standard deviation. Engineering estimate. */
const SPREAD = 0.02;

function drawBalls(
  sites: readonly Site[],
  sizes: BallSizes,
  random: Random,
  share: number,
): Pick<Scene, 'balls' | 'bridges'> {
  const between = (low: number, high: number): number => low + (high - low) * random();
  const bell = (): number => random() + random() + random() - 1.5;
  const shine = between(0.5, 1);
  const balls: (DrawnBall | null)[] = sites.map(() => ({
    diameter: sizes.ball * (1 + SPREAD * bell()),
    offset: { x: 0.015 * bell(), y: 0.015 * bell() },
    shine: Math.min(1, Math.max(0, shine + 0.15 * bell())),
  }));
  const pairs = neighbourPairs(sites);
  const bridges: { a: number; b: number; width: number }[] = [];
  const spoiled = new Set<number>();
  sites.forEach((_, i) => {
    if (spoiled.has(i) || random() >= share) return;
    const kind = random();
    const pair = pairs.filter(([a, b]) => a === i || b === i).find(([a, b]) => !spoiled.has(a) && !spoiled.has(b));
    spoiled.add(i);
    if (kind < 0.4) balls[i] = null;
    else if (kind < 0.65 && pair) {
      bridges.push({ a: pair[0], b: pair[1], width: between(0.18, 0.35) });
      pair.forEach((k) => spoiled.add(k));
    } else if (kind < 0.85) {
      balls[i] = { ...balls[i]!, diameter: sizes.ball * (random() < 0.5 ? between(0.8, 0.88) : between(1.12, 1.2)) };
    } else {
      const angle = 2 * Math.PI * random();
      balls[i] = { ...balls[i]!, offset: { x: 0.12 * Math.cos(angle), y: 0.12 * Math.sin(angle) } };
    }
  });
  return { balls, bridges };
}

/** A solder crumb between four sites. */
function crumbBetween({ columns, rows }: SitePattern, random: Random): Scene['debris'][number] {
  const place = (count: number): number => Math.floor(random() * (count - 1)) - (count - 2) / 2;
  return { x: place(columns), y: place(rows), radius: 0.06 + 0.08 * random() };
}
