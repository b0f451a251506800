import { median } from '../math';
import { Matrix, solve } from 'ml-matrix';
import { blurredPicture } from './blur';
import { gapsOf, mapPoint, scaled, type Homography, type PadGap, type Point, type SitePad } from '../site';
import { findPads } from './pad-pose';
import { greyAt, shrunk, type GreyPicture } from './picture';

export type PadVerdict = 'even' | 'lifted' | 'uneven';

export interface InspectedPad {
  readonly pin: string;
  readonly verdict: PadVerdict;
  /** How much of a tinned pad's light it sends back: 1 a tinned pad, 0 the board. */
  readonly level: number;
  /** How much its light differs from place to place, on the same scale. */
  readonly spread: number;
  /** True where it is near enough to a limit, or so bright, that it is left to the eye. */
  readonly unclear: boolean;
}

export interface PadInspection {
  /** From the package's frame, mm, to the picture, px. */
  readonly toPicture: Homography;
  readonly pads: readonly InspectedPad[];
  /** Neighbours with solder between them, as positions in `pads`. */
  readonly bridges: readonly (readonly [number, number])[];
}

/** Numbers of this file without another source were found by trial on drawn pictures of known truth. */

/** A pad with less of a tinned pad's light is gone. */
const LIFTED_BELOW = 0.3;
/** A pad whose light differs by more from place to place carries a lump or a bare patch. */
const UNEVEN_FROM = 0.16;
const UNCLEAR_LEVEL = 0.1;
const UNCLEAR_SPREAD = 0.03;
const BRIDGED_FROM = 0.5;
/** Pads are read with about so many pixels to the narrowest; more only adds noise and time. */
const MEASURE_PX = 16;
/** The longer side, px, from which on a picture tells nothing more of pads. Engineering estimate. */
export const USEFUL_PAD_SIDE_PX = 1600;
/** Places read on a pad: its rim is blurred into what is beside it. */
const PLACES = [-0.7, -0.35, 0, 0.35, 0.7];
const SATURATED = 250;

/**
 * Looks over a picture of a cleaned site: which pads are there and level, which are gone, which carry a lump or show bare
 * copper, and between which solder is left. Whether a pad is gone or oxidised through cannot be told by light alone.
 * @returns undefined where the pads are not found in the picture.
 */
export function inspectPads(picture: GreyPicture, pads: readonly SitePad[]): PadInspection | undefined {
  const found = findPads(picture, pads);
  if (!found) return undefined;
  const pxPerMm = Math.sqrt(Math.abs(found[0] * found[4] - found[1] * found[3]));
  const narrowest = Math.min(...pads.map((p) => Math.min(p.wMm, p.hMm)));
  const factor = Math.max(1, Math.floor((pxPerMm * narrowest) / MEASURE_PX));
  const near = blurredPicture(shrunk(picture, factor), 0.8);
  const map = scaled(found, 1 / factor);
  const greys = pads.map((pad) => faceGreys(near, map, pad));
  const gaps = gapsOf(pads);
  const gapGreys = gaps.map((gap) => strandGreys(near, map, gap));
  const light = lightOver(pads, greys.map(median));
  const dark = median(gaps.map((gap, k) => Math.min(...gapGreys[k]) / light(gap.from)));
  const share = (grey: number, at: Point): number => (grey / light(at) - dark) / (1 - dark);
  const seen = pads.map((pad, i) => inspectPad(pad, greys[i], (grey) => share(grey, pad)));
  const bridges = gaps.flatMap((gap, k): [number, number][] =>
    Math.max(...gapGreys[k].map((grey) => share(grey, gap.from))) > BRIDGED_FROM ? [[gap.a, gap.b]] : [],
  );
  return { toPicture: scaled(map, factor), pads: seen, bridges };
}

function inspectPad(pad: SitePad, greys: readonly number[], share: (grey: number) => number): InspectedPad {
  const shares = greys.map(share);
  const level = median(shares);
  const mean = shares.reduce((s, v) => s + v, 0) / shares.length;
  const spread = Math.sqrt(shares.reduce((s, v) => s + (v - mean) ** 2, 0) / shares.length);
  const dazzled = greys.filter((grey) => grey >= SATURATED).length > 0.3 * greys.length;
  return {
    pin: pad.pin,
    verdict: level < LIFTED_BELOW ? 'lifted' : spread > UNEVEN_FROM ? 'uneven' : 'even',
    level,
    spread,
    unclear:
      dazzled || Math.abs(level - LIFTED_BELOW) < UNCLEAR_LEVEL || Math.abs(spread - UNEVEN_FROM) < UNCLEAR_SPREAD,
  };
}

const greyUnder = (picture: GreyPicture, map: Homography, at: Point): number => {
  const { x, y } = mapPoint(map, at);
  return greyAt(picture, x, y);
};

function faceGreys(picture: GreyPicture, map: Homography, pad: SitePad): number[] {
  return PLACES.flatMap((u) =>
    PLACES.filter((v) => !pad.round || u * u + v * v < 0.6).map((v) =>
      greyUnder(picture, map, { x: pad.x + (u * pad.wMm) / 2, y: pad.y + (v * pad.hMm) / 2 }),
    ),
  );
}

/** Lines across a gap at places along the edges that face each other, and places on each. */
const LINES = 7;
const DEEP = [0.3, 0.5, 0.7];

/** Line by line across a gap its darkest grey: solder joins two pads only where it is bright all the way. */
function strandGreys(picture: GreyPicture, map: Homography, { from, to, facingMm }: PadGap): number[] {
  const level = from.y === to.y;
  return Array.from({ length: LINES }, (_, k) => {
    const aside = ((k - (LINES - 1) / 2) / LINES) * facingMm;
    return Math.min(
      ...DEEP.map((t) =>
        greyUnder(picture, map, {
          x: from.x + t * (to.x - from.x) + (level ? 0 : aside),
          y: from.y + t * (to.y - from.y) + (level ? aside : 0),
        }),
      ),
    );
  });
}

/** The light of a tinned pad over the site: a plane through the pads, those far below it left out. */
function lightOver(pads: readonly SitePad[], greys: readonly number[]): (at: Point) => number {
  let plane = [0, 0, median(greys)];
  const light = ({ x, y }: Point): number => Math.max(1, plane[0] * x + plane[1] * y + plane[2]);
  for (const least of [0.5, 0.7, 0.8]) {
    const used = pads.flatMap((pad, i) => (greys[i] > least * light(pad) ? [{ pad, grey: greys[i] }] : []));
    const rows = new Matrix(used.map(({ pad }) => [pad.x, pad.y, 1]));
    const normal = rows.transpose().mmul(rows);
    // Pads in one line leave the plane free to lean about it: a whisper of damping keeps it level.
    for (let k = 0; k < 2; k++) normal.set(k, k, normal.get(k, k) + 1e-3);
    const right = rows.transpose().mmul(Matrix.columnVector(used.map(({ grey }) => grey)));
    plane = solve(normal, right).to1DArray();
  }
  return light;
}
