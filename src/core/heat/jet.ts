import { AIR_DENSITY_20C, AIR_PRANDTL, airConductivity, airViscosityPaS } from './air';

/** A round hot-air jet on a flat board. */
export interface Jet {
  readonly nozzleMm: number;
  /** Distance of the outlet from the board. */
  readonly heightMm: number;
  /** Flow stated at 20 °C. */
  readonly flowLpm: number;
  /** True air temperature at the outlet. */
  readonly outletC: number;
  readonly ambientC: number;
  /** The station's multiplier on the heat-transfer coefficient, from calibration. */
  readonly multiplier: number;
  /** Spread of the entrained cold air in nozzle diameters (engineering estimate 3.5, calibrated out). */
  readonly spreadDiameters: number;
}

/** Surface temperature that the film properties are taken at (rework range; engineering estimate). */
const FILM_SURFACE_C = 150;

/** Martin's correlation holds for 2.5 ≤ r/D; inside, a bell is fitted so that the area mean is kept. */
const CORE_RADIUS = 2.5;
const BELL_WIDTH = 1.2;

export function reynolds(jet: Jet): number {
  const massFlow = (AIR_DENSITY_20C * jet.flowLpm) / 1000 / 60;
  const filmC = (jet.outletC + FILM_SURFACE_C) / 2;
  return (4 * massFlow) / (Math.PI * (jet.nozzleMm / 1000) * airViscosityPaS(filmC));
}

/** Reynolds function of the single round nozzle. Source: Martin 1977, in Incropera & DeWitt, impinging jets. */
export const martinF = (re: number): number => 2 * Math.sqrt(re) * Math.sqrt(1 + 0.005 * re ** 0.55);

/** Exact derivative of r²·G(r), over 2r. */
const outerG = (x: number, c: number): number => (x * x + 2 * c * x - 1.1 * c) / (2 * x * (x + c) ** 2);

/** Local shape at x = r/D whose area mean is Martin's G; derived from it by differentiation beyond 2.5 D. */
export function localG(x: number, heightOverD: number): number {
  const c = 0.1 * (Math.min(12, Math.max(2, heightOverD)) - 6);
  if (x >= CORE_RADIUS) return outerG(x, c);
  const rim = outerG(CORE_RADIUS, c);
  const e = Math.exp(-((CORE_RADIUS / BELL_WIDTH) ** 2));
  const area = (CORE_RADIUS * (CORE_RADIUS - 1.1)) / (CORE_RADIUS + c);
  const amplitude = (area - CORE_RADIUS ** 2 * rim) / (BELL_WIDTH ** 2 * (1 - e) - CORE_RADIUS ** 2 * e);
  return rim + amplitude * (Math.exp(-((x / BELL_WIDTH) ** 2)) - e);
}

/** Local heat-transfer coefficient at radius r, W/m²K. */
export const jetFilm = (jet: Jet, radiusMm: number): number =>
  jetScale(jet) * localG(radiusMm / jet.nozzleMm, jet.heightMm / jet.nozzleMm);

/** The part of the coefficient that does not depend on the place, W/m²K. */
export function jetScale(jet: Jet): number {
  const filmC = (jet.outletC + FILM_SURFACE_C) / 2;
  return (
    (jet.multiplier * martinF(reynolds(jet)) * AIR_PRANDTL ** 0.42 * airConductivity(filmC)) / (jet.nozzleMm / 1000)
  );
}

/** Share of the outlet's excess temperature that is left after cold air is drawn in, at radius r. */
export function entrainment(jet: Pick<Jet, 'nozzleMm' | 'heightMm' | 'spreadDiameters'>, radiusMm: number): number {
  const axial = (1 + (jet.heightMm / (5 * jet.nozzleMm)) ** 4) ** -0.25;
  return axial / Math.sqrt(1 + (radiusMm / (jet.spreadDiameters * jet.nozzleMm)) ** 2);
}

/** Adiabatic wall temperature at radius r, °C. */
export const adiabaticWallC = (jet: Jet, radiusMm: number): number =>
  jet.ambientC + entrainment(jet, radiusMm) * (jet.outletC - jet.ambientC);
