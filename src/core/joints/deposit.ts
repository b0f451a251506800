/** Solder paste through a stencil. Lengths in mm, volumes in mm³. */

/** Densities, g/cm³. Source: alloy tables; flux about 1.0 (from memory). */
const DENSITY = { SAC305: 7.38, Sn63Pb37: 8.4, Sn42Bi58: 8.56 } as const;
const FLUX_DENSITY = 1.0;

/** Least area ratio of a stencil aperture that releases well. Source: IPC-7525. */
export const LEAST_AREA_RATIO = 0.66;

/** Transfer efficiency at and above the least area ratio; engineering estimate. */
const FULL_TRANSFER = 0.85;

/** Volume share of metal in paste with metal weight share `w`. */
export function metalVolumeFraction(w: number, alloy: keyof typeof DENSITY): number {
  const metal = w / DENSITY[alloy];
  return metal / (metal + (1 - w) / FLUX_DENSITY);
}

/** Aperture area over its wall area: D/(4T) for round, LW/(2T(L+W)) for rectangular apertures. Source: IPC-7525. */
export function areaRatio(aperture: { round: boolean; lengthMm: number; widthMm: number }, stencilMm: number): number {
  const { lengthMm: l, widthMm: w } = aperture;
  return aperture.round ? l / (4 * stencilMm) : (l * w) / (2 * stencilMm * (l + w));
}

/** Share of the aperture that stays on the pad; falls linearly below the least area ratio (engineering estimate). */
export function transferEfficiency(ratio: number): number {
  return ratio >= LEAST_AREA_RATIO ? FULL_TRANSFER : Math.max(0, (FULL_TRANSFER * ratio) / LEAST_AREA_RATIO);
}

/** Paste volume left by one pass, mm³. */
export function depositMm3(
  aperture: { round: boolean; lengthMm: number; widthMm: number },
  stencilMm: number,
  transfer: number,
): number {
  const area = aperture.round ? (Math.PI * aperture.lengthMm ** 2) / 4 : aperture.lengthMm * aperture.widthMm;
  return area * stencilMm * transfer;
}

/** Diameter of the ball that a paste deposit melts to, mm. */
export const ballFromPasteMm = (pasteMm3: number, metalFraction: number): number =>
  Math.cbrt((6 * pasteMm3 * metalFraction) / Math.PI);
