import { landsOf, type PartPackage } from '../board';
import type { Point } from './homography';

/** A pad of a site in the package's own frame, mm from its middle, y down. */
export interface SitePad extends Point {
  readonly pin: string;
  readonly wMm: number;
  readonly hMm: number;
  readonly round: boolean;
}

/** The pads of a package as a picture of its site is looked over for. */
export const sitePads = (pkg: PartPackage): SitePad[] =>
  landsOf(pkg).map(({ pin, xMm, yMm, wMm, hMm, round }) => ({ pin, x: xMm, y: yMm, wMm, hMm, round }));

/** The gap between two pads: where it runs and how wide the edges are that face each other. */
export interface PadGap {
  /** Positions in the list of pads. */
  readonly a: number;
  readonly b: number;
  readonly from: Point;
  readonly to: Point;
  readonly facingMm: number;
  readonly lengthMm: number;
}

/** Gaps up to so many times the narrowest can be bridged by what is left on the pads. Engineering estimate. */
const NEAR_GAPS = 1.6;

/** The gaps between neighbouring pads, from edge to edge. */
export function gapsOf(pads: readonly SitePad[]): PadGap[] {
  const all = pads.flatMap((p, a) =>
    pads.slice(a + 1).flatMap((q, k): PadGap[] => {
      const gap = gapBetween(p, q);
      return gap ? [{ a, b: a + 1 + k, ...gap }] : [];
    }),
  );
  const narrowest = Math.min(...all.map((g) => g.lengthMm));
  return all.filter((g) => g.lengthMm <= NEAR_GAPS * narrowest);
}

/** Round pads face each other by so much of their width. */
const ROUND_FACING = 0.5;

/** Only pads whose edges run side by side face each other; those across a corner do not. */
function gapBetween(p: SitePad, q: SitePad): Omit<PadGap, 'a' | 'b'> | undefined {
  const overlap = (axis: 'x' | 'y', size: 'wMm' | 'hMm'): readonly [number, number] => [
    Math.max(p[axis] - p[size] / 2, q[axis] - q[size] / 2),
    Math.min(p[axis] + p[size] / 2, q[axis] + q[size] / 2),
  ];
  const [x, y] = [overlap('x', 'wMm'), overlap('y', 'hMm')];
  const facing = { x: x[1] - x[0], y: y[1] - y[0] };
  const share = p.round && q.round ? ROUND_FACING : 1;
  if (facing.y > 0 && facing.x < 0) {
    const at = (y[0] + y[1]) / 2;
    return {
      from: { x: x[1], y: at },
      to: { x: x[0], y: at },
      facingMm: share * facing.y,
      lengthMm: -facing.x,
    };
  }
  if (facing.x > 0 && facing.y < 0) {
    const at = (x[0] + x[1]) / 2;
    return { from: { x: at, y: y[1] }, to: { x: at, y: y[0] }, facingMm: share * facing.x, lengthMm: -facing.y };
  }
  return undefined;
}

/** The box round all pads, mm. */
export function extentOf(pads: readonly SitePad[]): { readonly w: number; readonly h: number } {
  const reach = (axis: 'x' | 'y', size: 'wMm' | 'hMm'): number =>
    2 * Math.max(...pads.map((p) => Math.abs(p[axis]) + p[size] / 2));
  return { w: reach('x', 'wMm'), h: reach('y', 'hMm') };
}
