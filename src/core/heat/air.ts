/** Properties of air for the jet correlations. Temperatures in °C unless the name says kelvin. */

export const KELVIN = 273.15;

/** Dynamic viscosity, Pa·s. Source: Sutherland's law with the constants of the US Standard Atmosphere 1976. */
export function airViscosityPaS(tempC: number): number {
  const t = tempC + KELVIN;
  return (1.458e-6 * t ** 1.5) / (t + 110.4);
}

/** Thermal conductivity, W/m·K. Source: US Standard Atmosphere 1976, eq. 53. */
export function airConductivity(tempC: number): number {
  const t = tempC + KELVIN;
  return (2.64638e-3 * t ** 1.5) / (t + 245.4 * 10 ** (-12 / t));
}

/** Prandtl number of air; 0.70 over the range of hot-air work (Incropera & DeWitt, air tables). */
export const AIR_PRANDTL = 0.7;

/** Density at 20 °C and 1013 hPa, kg/m³, at which station flows are stated. */
export const AIR_DENSITY_20C = 1.2041;
