import { fitHomography, inverse, mapPoint, sitesOf, type Homography, type Point, type SitePattern } from '../site';
import type { Blob } from './blobs';

/** A pattern laid over spots: where its sites lie in the picture. */
export interface LaidPattern {
  /** From the pattern's frame (pitches, centre at the origin) to the picture, px. */
  readonly toPicture: Homography;
  /** Site by site in the order of `sitesOf`: the spot found there, in the pattern's frame. */
  readonly spots: readonly (Point | null)[];
  /** Share of the sites on which a spot was found. */
  readonly hit: number;
  /** Strength of the spots on sites, less what lies on the lattice but on no site. */
  readonly score: number;
}

/** A spot belongs to a place on the lattice when it is no farther from it, in pitches. Engineering estimates. */
const NEAR = 0.28;
const NEAR_WHEN_FITTED = 0.22;
const SEEDS = 24;
const PARTNERS = 6;
const REFITS = 4;
/** With so many of the sites met the search is over. */
const SETTLED = 0.85;
/** What a spot off the pattern counts against one on it. */
const STRAY_COUNTS = 0.5;

/**
 * Lays a pattern over spots: from strong spots and their neighbours a lattice is grown step by step, so that tilt and
 * perspective do no harm; the pattern is moved and turned to where it meets most of the spots; then a perspective is fitted.
 * @param pitchPx the pitch expected, within a third.
 */
export function layPattern(blobs: readonly Blob[], pattern: SitePattern, pitchPx: number): LaidPattern | undefined {
  const index = new Buckets(blobs, pitchPx);
  const count = pattern.filled.filter(Boolean).length;
  let best: Placed | undefined;
  for (const seed of blobs.slice(0, SEEDS)) {
    for (const partner of index.around(seed, 0.65 * pitchPx, 1.4 * pitchPx).slice(0, PARTNERS)) {
      const [dx, dy] = [partner.x - seed.x, partner.y - seed.y];
      // Along x in the picture, whichever of the two directions it is: turning by quarters is tried later.
      if (dx < Math.abs(dy)) continue;
      const placed = placePattern(growLattice(seed, { x: dx, y: dy }, index), pattern);
      if (placed && placed.score > (best?.score ?? 0)) best = placed;
      // Another seed would find the same lattice again.
      if (best && best.pairs.length >= SETTLED * count) return refit(best, index, pattern);
    }
  }
  return best && refit(best, index, pattern);
}

/** Spots by squares of a pitch, for looking up what is near. */
class Buckets {
  private readonly squares = new Map<number, Blob[]>();

  constructor(
    blobs: readonly Blob[],
    private readonly sizePx: number,
  ) {
    for (const blob of blobs) {
      const key = this.key(Math.floor(blob.x / sizePx), Math.floor(blob.y / sizePx));
      this.squares.set(key, [...(this.squares.get(key) ?? []), blob]);
    }
  }

  /** Those within a ring round a place, nearest first. */
  around({ x, y }: Point, fromPx: number, toPx: number): Blob[] {
    const span = Math.ceil(toPx / this.sizePx);
    const [cx, cy] = [Math.floor(x / this.sizePx), Math.floor(y / this.sizePx)];
    const found: { blob: Blob; d: number }[] = [];
    for (let v = cy - span; v <= cy + span; v++) {
      for (let u = cx - span; u <= cx + span; u++) {
        for (const blob of this.squares.get(this.key(u, v)) ?? []) {
          const d = Math.hypot(blob.x - x, blob.y - y);
          if (d >= fromPx && d <= toPx) found.push({ blob, d });
        }
      }
    }
    return found.sort((a, b) => a.d - b.d).map(({ blob }) => blob);
  }

  nearest(place: Point, withinPx: number): Blob | undefined {
    return this.around(place, 0, withinPx)[0];
  }

  private key(u: number, v: number): number {
    return v * 65_536 + u;
  }
}

interface Node {
  readonly blob: Blob;
  readonly i: number;
  readonly j: number;
  readonly u: Point;
  readonly v: Point;
}

const plus = (a: Point, b: Point, by = 1): Point => ({ x: a.x + by * b.x, y: a.y + by * b.y });
const minus = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y });
const mixed = (a: Point, b: Point, share: number): Point => ({
  x: a.x + share * (b.x - a.x),
  y: a.y + share * (b.y - a.y),
});
/** How much of a new step the lattice's direction takes over: it bends with the perspective, not with one spot. */
const BEND = 0.3;

/** Steps from spot to spot along both directions; over a missing one by a double step. */
function growLattice(seed: Blob, u: Point, index: Buckets): Node[] {
  const near = NEAR * Math.hypot(u.x, u.y);
  const across = { x: -u.y, y: u.x };
  const second = index.nearest(plus(seed, across), near);
  const first: Node = { blob: seed, i: 0, j: 0, u, v: second ? minus(second, seed) : across };
  const nodes = new Map([['0 0', first]]);
  const taken = new Set<Blob>([seed]);
  const queue = [first];
  for (let node = queue.shift(); node; node = queue.shift()) {
    for (const [di, dj] of STEPS) {
      const key = `${node.i + di} ${node.j + dj}`;
      if (nodes.has(key)) continue;
      const step = plus({ x: di * node.u.x, y: di * node.u.y }, node.v, dj);
      const blob = index.nearest(plus(node.blob, step), near);
      if (!blob || taken.has(blob)) continue;
      const count = di + dj;
      const moved = minus(blob, node.blob);
      const made = { x: moved.x / count, y: moved.y / count };
      const next: Node = {
        blob,
        i: node.i + di,
        j: node.j + dj,
        u: di !== 0 ? mixed(node.u, made, BEND) : node.u,
        v: dj !== 0 ? mixed(node.v, made, BEND) : node.v,
      };
      nodes.set(key, next);
      taken.add(blob);
      queue.push(next);
    }
  }
  return [...nodes.values()];
}

const STEPS = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [2, 0],
  [-2, 0],
  [0, 2],
  [0, -2],
] as const;

interface Placed {
  readonly score: number;
  readonly pairs: readonly { readonly blob: Blob; readonly site: Point }[];
}

const TURNS = [
  (i: number, j: number) => [i, j],
  (i: number, j: number) => [-j, i],
  (i: number, j: number) => [-i, -j],
  (i: number, j: number) => [j, -i],
] as const;
/** As it lies in the picture is preferred: another turn has to meet so much more. */
const TURN_WINS = 1.05;

function placePattern(nodes: readonly Node[], pattern: SitePattern): Placed | undefined {
  const { columns, rows, filled } = pattern;
  const strengths = nodes.map((n) => n.blob.strength).sort((a, b) => a - b);
  const usual = strengths[strengths.length >> 1];
  let best: { score: number; turn: number; left: number; top: number } | undefined;
  TURNS.forEach((turn, t) => {
    const spots = nodes.map((n) => [...turn(n.i, n.j), Math.min(n.blob.strength, usual)]);
    const [lefts, tops] = [spots.map((s) => s[0]), spots.map((s) => s[1])];
    const [left0, left1] = span(Math.min(...lefts), Math.max(...lefts), columns);
    const [top0, top1] = span(Math.min(...tops), Math.max(...tops), rows);
    for (let top = top0; top <= top1; top++) {
      for (let left = left0; left <= left1; left++) {
        let score = 0;
        for (const [i, j, strength] of spots) {
          const [c, r] = [i - left, j - top];
          const on = c >= 0 && c < columns && r >= 0 && r < rows && filled[r * columns + c];
          score += on ? strength : -STRAY_COUNTS * strength;
        }
        if (score > (best ? best.score * (best.turn === t ? 1 : TURN_WINS) : 0)) best = { score, turn: t, left, top };
      }
    }
  });
  if (!best) return undefined;
  const { score, turn, left, top } = best;
  const pairs = nodes.flatMap(({ blob, i, j }) => {
    const [a, b] = TURNS[turn](i, j);
    const [c, r] = [a - left, b - top];
    if (c < 0 || c >= columns || r < 0 || r >= rows || !filled[r * columns + c]) return [];
    return [{ blob, site: { x: c - (columns - 1) / 2, y: r - (rows - 1) / 2 } }];
  });
  return { score, pairs };
}

/** Where the first column may lie so that the spots' span and the pattern meet, one place of slack on both sides. */
const span = (least: number, most: number, count: number): [number, number] => {
  const [a, b] = [least, most - count + 1];
  return [Math.min(a, b) - 1, Math.max(a, b) + 1];
};

function refit(placed: Placed, index: Buckets, pattern: SitePattern): LaidPattern | undefined {
  const sites = sitesOf(pattern);
  let pairs = placed.pairs;
  let spots: (Blob | null)[] = [];
  let toPicture: Homography | undefined;
  for (let k = 0; k < REFITS; k++) {
    const h = fitHomography(
      pairs.map((p) => p.site),
      pairs.map((p) => p.blob),
    );
    if (!h) break;
    toPicture = h;
    spots = spotsOnSites(h, sites, index);
    pairs = sites.flatMap((site, i) => (spots[i] ? [{ blob: spots[i], site }] : []));
  }
  if (!toPicture) return undefined;
  const back = inverse(toPicture);
  return {
    toPicture,
    spots: spots.map((spot) => spot && mapPoint(back, spot)),
    hit: pairs.length / sites.length,
    score: placed.score,
  };
}

function spotsOnSites(h: Homography, sites: readonly Point[], index: Buckets): (Blob | null)[] {
  const taken = new Set<Blob>();
  return sites.map((site) => {
    const at = mapPoint(h, site);
    const beside = mapPoint(h, { x: site.x + 1, y: site.y });
    const blob = index.nearest(at, NEAR_WHEN_FITTED * Math.hypot(beside.x - at.x, beside.y - at.y));
    if (!blob || taken.has(blob)) return null;
    taken.add(blob);
    return blob;
  });
}
