import { depositMm3, metalVolumeFraction, transferEfficiency, areaRatio } from './deposit';
import { METAL_WEIGHT } from './stencil';
import type { AlloyName } from './alloys';

export interface CentrePaste {
  /** Share of the centre pad under paste, between starving and floating, and what to take. */
  readonly least: number;
  readonly most: number;
  readonly take: number;
  /** Solder height on an edge pad, and on the centre at the share to take, mm. */
  readonly edgeHeightMm: number;
  readonly centreHeightMm: number;
  /** Windows of a foil: so many in a square, each so wide, mm. */
  readonly windows: number;
  readonly windowMm: number;
}

/** Under this share of the edge's height the centre does not wet across; over the second it lifts the part. Estimates. */
const STARVES_BELOW = 0.6;
const FLOATS_ABOVE = 1.1;
const AIMED = 0.9;
/** Flux gas needs channels out from under the part: never more than this share. Common practice, no source. */
const MOST_SHARE = 0.8;
/** Windows wider than this are scooped out by a squeegee, mm. Common practice, no source. */
const WIDEST_WINDOW_MM = 1.5;

/** Paste on the centre pad of a leadless part: as high, molten, as what is on its edge pads. */
export function centrePaste(
  edge: { readonly lengthMm: number; readonly widthMm: number },
  centreMm: readonly [number, number],
  stencilMm: number,
  alloy: AlloyName,
): CentrePaste {
  const phi = metalVolumeFraction(METAL_WEIGHT, alloy);
  const aperture = { round: false, ...edge };
  const deposit = depositMm3(aperture, stencilMm, transferEfficiency(areaRatio(aperture, stencilMm)));
  const edgeHeightMm = (deposit * phi) / (edge.lengthMm * edge.widthMm);
  // Windows release fully: they are wide against the foil.
  const fullHeightMm = stencilMm * transferEfficiency(1) * phi;
  const share = (of: number): number => Math.min(MOST_SHARE, (of * edgeHeightMm) / fullHeightMm);
  const [least, most] = [share(STARVES_BELOW), share(FLOATS_ABOVE)];
  const take = Math.min(share(AIMED), (least + most) / 2);
  const side = Math.ceil(Math.max(...centreMm) / WIDEST_WINDOW_MM / Math.SQRT2);
  const windows = Math.max(1, side) ** 2;
  return {
    least,
    most,
    take,
    edgeHeightMm,
    centreHeightMm: take * fullHeightMm,
    windows,
    windowMm: Math.sqrt((take * centreMm[0] * centreMm[1]) / windows),
  };
}
