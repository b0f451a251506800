import { Matrix, solve } from 'ml-matrix';
import { median } from '../math';
import type { Point } from '../site';

/** An outline as it was measured, before what the whole picture says of it. Lengths in pitches. */
export interface MeasuredSize {
  readonly at: Point;
  /** By its edge, and by its whole run of grey against the usual ball's. */
  readonly radius: number;
  readonly profileRadius: number;
  readonly sd: number;
  /** Whether it may speak for the picture: its edge is seen all round. */
  readonly sound: boolean;
}

/** Sizes put right by what all balls of a picture have in common. */
export interface Sizing {
  /** Radius of every ball, its standard deviation, and that against the other balls of the picture, in the order given. */
  readonly radii: readonly { readonly radius: number; readonly sd: number; readonly ownSd: number }[];
  /** Median of the sound ones. */
  readonly usual: number;
  /** True where the balls measure so unlike the ones that belong there that light and size cannot be told apart. */
  readonly inDoubt: boolean;
}

/**
 * An edge found in a picture is off by the same for all its balls: rims that darken or shine, focus, exposure. One standard deviation,
 * relative. Balls of one lot differ from their nominal size by less, and among themselves by about as much. Engineering estimates.
 */
const EDGE_SD = 0.05;
const LOT_SD = 0.006;
const SPREAD_SD = 0.01;
/** Beyond this the balls may as well be of another size: said, and half of the difference stays in the doubt. */
const MOST_EDGE = 0.1;
/** A surface is laid through so many sound outlines at least; fewer say nothing of how focus varies over the picture. */
const LEAST_FOR_SURFACE = 24;
const SURFACE_ROUNDS = 3;
const OUTLIER_SDS = 3;
/** For a normal distribution, the standard deviation over the median of absolute differences. */
const PER_MEDIAN_OFF = 1.4826;

/** Edge and profile that differ by more standard deviations than this saw two things: their difference stays in the doubt. */
const DIFFER_SDS = 3;

/**
 * Puts sizes right: what varies smoothly over the picture is focus and light, not solder, and is taken out; edge and profile count by how
 * little each scatters in this picture; what all balls differ by from the nominal ball is shared between the edge's own error and the
 * lot's by their doubts. Scatter beyond what balls differ by counts as noise.
 */
export function sizesOf(measured: readonly MeasuredSize[], nominal: number): Sizing {
  const pool = measured.some((m) => m.sound) ? measured.filter((m) => m.sound) : measured;
  const usualSeen = median(pool.map((m) => m.radius));
  const edges = flattened(measured, pool, (m) => m.radius);
  const profiles = flattened(measured, pool, (m) => m.profileRadius);
  const [edgeSd, profileSd] = [edges, profiles].map((f) => Math.max(LEAST_SD, f.scatter));
  const edgeShare = profileSd ** 2 / (edgeSd ** 2 + profileSd ** 2);
  const combined = edges.sizes.map((size, i) => edgeShare * size + (1 - edgeShare) * profiles.sizes[i]);
  const scatter = spreadOf(combined.filter((_, i) => measured[i].sound));
  const noise = Math.sqrt(Math.max(0, scatter ** 2 - SPREAD_SD ** 2));
  const off = usualSeen / nominal;
  const inDoubt = Math.abs(off - 1) > MOST_EDGE;
  const keeps = LOT_SD ** 2 / (LOT_SD ** 2 + EDGE_SD ** 2);
  const factor = off ** (keeps - 1);
  const shared = Math.hypot(Math.sqrt(keeps) * EDGE_SD, inDoubt ? (off - 1) / 2 : 0);
  return {
    radii: combined.map((size, i) => {
      const differ = Math.abs(edges.sizes[i] - profiles.sizes[i]);
      const torn = differ > DIFFER_SDS * Math.hypot(edgeSd, profileSd) ? differ / 2 : 0;
      const radius = size * usualSeen;
      const ownSd = Math.hypot(Math.max(edgeShare * measured[i].sd, noise * radius), torn * usualSeen);
      return { radius: radius * factor, sd: Math.hypot(ownSd, shared * radius) * factor, ownSd: ownSd * factor };
    }),
    usual: usualSeen * factor,
    inDoubt,
  };
}

/** One kind of size against what it usually is at each place of the picture, and how much the sound ones scatter. */
function flattened(
  measured: readonly MeasuredSize[],
  pool: readonly MeasuredSize[],
  sizeOf: (m: MeasuredSize) => number,
): { sizes: number[]; scatter: number } {
  const surface = smoothSurface(pool.map((m) => ({ at: m.at, size: sizeOf(m) })));
  const sizes = measured.map((m) => sizeOf(m) / surface(m.at));
  return { sizes, scatter: spreadOf(sizes.filter((_, i) => measured[i].sound)) };
}

/** Robust spread of relative sizes round one. */
const spreadOf = (list: readonly number[]): number =>
  list.length < 3 ? 0 : PER_MEDIAN_OFF * median(list.map((v) => Math.abs(v - 1)));

interface SizeAt {
  readonly at: Point;
  readonly size: number;
}

/** Size as a quadratic over the picture, by least squares with outliers left out; the median where there are few. */
function smoothSurface(sound: readonly SizeAt[]): (at: Point) => number {
  const usual = median(sound.map((m) => m.size));
  if (sound.length < LEAST_FOR_SURFACE) return () => usual;
  const extent = Math.max(1, ...sound.map((m) => Math.max(Math.abs(m.at.x), Math.abs(m.at.y))));
  const terms = ({ x, y }: Point): number[] => {
    const [u, v] = [x / extent, y / extent];
    return [1, u, v, u * u, u * v, v * v];
  };
  let kept = sound.filter((m) => Math.abs(m.size / usual - 1) < MOST_EDGE);
  let levels: number[] | undefined;
  for (let round = 0; round < SURFACE_ROUNDS && kept.length >= LEAST_FOR_SURFACE; round++) {
    const fit = solve(new Matrix(kept.map((m) => terms(m.at))), Matrix.columnVector(kept.map((m) => m.size)), true);
    const now = fit.to1DArray();
    levels = now;
    const left = (m: SizeAt): number => m.size - terms(m.at).reduce((s, t, k) => s + t * now[k], 0);
    const sd = PER_MEDIAN_OFF * median(kept.map((m) => Math.abs(left(m))));
    kept = sound.filter((m) => Math.abs(left(m)) < OUTLIER_SDS * Math.max(sd, LEAST_SD * usual));
  }
  if (!levels) return () => usual;
  const found = levels;
  // No further from the usual than focus can be: a defect at a corner must not bend the surface away.
  return (at) => {
    const size = terms(at).reduce((s, t, k) => s + t * found[k], 0);
    return Math.min(usual * (1 + MOST_EDGE), Math.max(usual * (1 - MOST_EDGE), size));
  };
}

/** Outlines are not told apart closer than this, relative. */
const LEAST_SD = 0.003;
