import { median } from '../math';
import { blurredPicture } from './blur';
import { extentOf, fitHomography, gapsOf, mapPoint, scaled, type Homography, type Point, type SitePad } from '../site';
import { greyAt, shrunk, type GreyPicture } from './picture';

/** Numbers of this file without another source were found by trial on drawn pictures of known truth. */

/** Pictures are taken nearly upright, degrees. */
const MOST_TURN_DEG = 10;
/** The pads may reach a little over the picture's edge when leaned, and fill at least so much of what they could. */
const FULL = 1.02;
const LEAST_FILL = 0.45;
/** From one pose tried to the next no pad moves by more than this share of the narrowest pad or gap. */
const STRIDE = 0.7;
/** In the first search the narrowest pad or gap is about so many pixels, and blurred by this share of itself. */
const SEARCH_PX = 6;
const BLUR = 0.25;
/** Pads looked at in the first search, poses then judged by all pads, and poses gone on with. */
const SEARCH_PADS = 16;
const SECOND_LOOKS = 1000;
const FINALISTS = 10;
/** The golden section: places a step of it apart fall into no row. */
const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** Grey levels between pads and gaps below which nothing is found. */
const LEAST_CONTRAST = 15;

/** How bright pads are against the gaps round them, under a map: what a pose is judged by. */
class Contrast {
  private readonly inside: readonly Point[];
  private readonly beside: readonly Point[];

  constructor(
    private readonly picture: GreyPicture,
    pads: readonly SitePad[],
    outMm: number,
  ) {
    this.inside = pads.flatMap((p) => [{ x: p.x, y: p.y }, ...cross(p, 0.3 * p.wMm, 0.3 * p.hMm)]);
    this.beside = pads.flatMap((p) => cross(p, p.wMm / 2 + outMm, p.hMm / 2 + outMm));
  }

  of(h: Homography): number {
    return this.mean(h, this.inside) - this.mean(h, this.beside);
  }

  private mean(h: Homography, points: readonly Point[]): number {
    let sum = 0;
    for (const { x, y } of points) {
      const w = h[6] * x + h[7] * y + 1;
      sum += greyAt(this.picture, (h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w);
    }
    return sum / points.length;
  }
}

const cross = ({ x, y }: Point, dx: number, dy: number): Point[] => [
  { x: x - dx, y },
  { x: x + dx, y },
  { x, y: y - dy },
  { x, y: y + dy },
];

interface Pose {
  readonly scale: number;
  readonly turn: number;
  readonly x: number;
  readonly y: number;
}

const mapOf = ({ scale, turn, x, y }: Pose): Homography => {
  const [c, s] = [scale * Math.cos(turn), scale * Math.sin(turn)];
  return [c, -s, x, s, c, y, 0, 0];
};

interface Search {
  readonly pads: readonly SitePad[];
  readonly extent: { readonly w: number; readonly h: number };
  readonly narrowMm: number;
}

/**
 * Lays the pads of a package over a picture of its site, of unknown scale, turned and leaned by a few degrees: the pose
 * in which pads are brightest against what is between them, then pad by pad a perspective through all of them.
 * @returns from mm to pixels; undefined where nothing bright lies under the pads.
 */
export function findPads(picture: GreyPicture, pads: readonly SitePad[]): Homography | undefined {
  const narrowMm = Math.min(...gapsOf(pads).map((g) => g.lengthMm), ...pads.map((p) => Math.min(p.wMm, p.hMm)));
  const search = { pads, extent: extentOf(pads), narrowMm };
  const most = FULL * Math.min(picture.width / search.extent.w, picture.height / search.extent.h);
  const factor = Math.max(1, Math.floor((most * narrowMm) / SEARCH_PX));
  const small = shrunk(picture, factor);
  const soft = blurredPicture(small, (BLUR * most * narrowMm) / factor);
  const few = pads.filter((_, i) => ((i * GOLDEN) % 1) * pads.length < SEARCH_PADS);
  const judge = new Contrast(soft, few, narrowMm / 2);
  const all = new Contrast(soft, pads, narrowMm / 2);
  const climbs = posesOf(small, search, most / factor)
    .map((pose) => ({ pose, contrast: judge.of(mapOf(pose)) }))
    .sort((a, b) => b.contrast - a.contrast)
    .slice(0, SECOND_LOOKS)
    .map(({ pose }) => ({ pose, contrast: all.of(mapOf(pose)) }))
    .sort((a, b) => b.contrast - a.contrast)
    .slice(0, FINALISTS)
    .map(({ pose }) => climbed(all, pose, search));
  const best = climbs.reduce((a, b) => (b.contrast > a.contrast ? b : a));
  const map = padByPad(small, search, mapOf(best.pose));
  return all.of(map) > LEAST_CONTRAST ? scaled(map, factor) : undefined;
}

const turnStep = ({ extent, narrowMm }: Search): number => (2 * STRIDE * narrowMm) / Math.hypot(extent.w, extent.h);
const scaleStep = ({ extent, narrowMm }: Search): number => 1 + (2 * STRIDE * narrowMm) / Math.max(extent.w, extent.h);

/** All poses of the first search. */
function posesOf({ width, height }: GreyPicture, search: Search, most: number): Pose[] {
  const poses: Pose[] = [];
  const { w, h } = search.extent;
  const turns = Math.ceil((MOST_TURN_DEG * Math.PI) / 180 / turnStep(search));
  for (let scale = most; scale > LEAST_FILL * most; scale /= scaleStep(search)) {
    const stridePx = STRIDE * search.narrowMm * scale;
    const [right, down] = [(width - w * scale) / 2, (height - h * scale) / 2].map((slack) =>
      Math.max(1, Math.ceil(slack / stridePx)),
    );
    for (let t = -turns; t <= turns; t++) {
      for (let i = -right; i <= right; i++) {
        for (let j = -down; j <= down; j++) {
          const [x, y] = [width / 2 + i * stridePx, height / 2 + j * stridePx];
          poses.push({ scale, turn: t * turnStep(search), x, y });
        }
      }
    }
  }
  return poses;
}

const CLIMBS = 6;

/** The best pose near one, by halving steps. */
function climbed(judge: Contrast, from: Pose, search: Search): { pose: Pose; contrast: number } {
  let best = { pose: from, contrast: judge.of(mapOf(from)) };
  for (let round = 0, share = 1; round < CLIMBS; round++, share /= 2) {
    const d = share * STRIDE * search.narrowMm * from.scale;
    const grown = scaleStep(search) ** share;
    const dt = share * turnStep(search);
    for (let again = true; again;) {
      const { pose } = best;
      const tried = [
        ...[-d, d].flatMap((by) => [
          { ...pose, x: pose.x + by },
          { ...pose, y: pose.y + by },
        ]),
        ...[1 / grown, grown].map((by) => ({ ...pose, scale: pose.scale * by })),
        ...[-dt, dt].map((by) => ({ ...pose, turn: pose.turn + by })),
      ].map((next) => ({ pose: next, contrast: judge.of(mapOf(next)) }));
      const top = tried.reduce((a, b) => (b.contrast > a.contrast ? b : a));
      again = top.contrast > best.contrast;
      if (again) best = top;
    }
  }
  return best;
}

/** How far a pad is looked for from where the map says, shares of the narrowest feature, round by round. */
const LOOKED_FOR = [0.9, 0.6, 0.4, 0.25];
const TRIES_A_SIDE = 4;
/** A pad with less of the usual contrast than this tells nothing of where it lies. */
const TELLS = 0.6;

/** A perspective through all pads, each where it stands out most near its place. */
function padByPad(picture: GreyPicture, { pads, narrowMm }: Search, first: Homography): Homography {
  let map = first;
  const judges = pads.map((pad) => new Contrast(picture, [pad], narrowMm / 2));
  for (const reach of LOOKED_FOR) {
    const seen = pads.map((pad, i) => bestShift(judges[i], map, pad, reach * narrowMm));
    const usual = median(seen.map((s) => s.contrast));
    const told = seen.flatMap((s, i) => (s.contrast > TELLS * usual ? [{ pad: pads[i], at: s.at }] : []));
    map =
      fitHomography(
        told.map(({ pad }) => pad),
        told.map(({ at }) => at),
      ) ?? map;
  }
  return map;
}

/** Where near its place a pad stands out most: the mean of the shifts, weighed by how much better they are than the worst. */
function bestShift(judge: Contrast, map: Homography, pad: SitePad, reachMm: number): { at: Point; contrast: number } {
  const shifts: { dx: number; dy: number; contrast: number }[] = [];
  for (let i = -TRIES_A_SIDE; i <= TRIES_A_SIDE; i++) {
    for (let j = -TRIES_A_SIDE; j <= TRIES_A_SIDE; j++) {
      const [dx, dy] = [(i * reachMm) / TRIES_A_SIDE, (j * reachMm) / TRIES_A_SIDE];
      shifts.push({ dx, dy, contrast: judge.of(moved(map, dx, dy)) });
    }
  }
  const contrast = Math.max(...shifts.map((s) => s.contrast));
  // Flat tops are common: a sharp pad stands out alike over a range of shifts, and its middle is meant.
  const top = shifts.filter((s) => s.contrast > 0.97 * contrast);
  const mean = (of: 'dx' | 'dy'): number => top.reduce((sum, s) => sum + s[of], 0) / top.length;
  return { at: mapPoint(map, { x: pad.x + mean('dx'), y: pad.y + mean('dy') }), contrast };
}

/** The map with its frame moved first. */
const moved = (h: Homography, dx: number, dy: number): Homography => {
  const w = h[6] * dx + h[7] * dy + 1;
  const shifted = [
    ...[h[0], h[1], h[0] * dx + h[1] * dy + h[2]],
    ...[h[3], h[4], h[3] * dx + h[4] * dy + h[5]],
    ...[h[6], h[7]],
  ];
  return shifted.map((v) => v / w);
};
