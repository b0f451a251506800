import { ALLOYS, type AlloyName } from '../joints';
import { jointShare } from './grid';
import type { Mesh } from './mesh';
import type { HeatSolver } from './solver';

/** Heat that a layer takes up while it melts, J/m², and between which temperatures, °C. */
export interface Latent {
  readonly heatJm2: number;
  readonly solidusC: number;
  readonly liquidusC: number;
}

/**
 * Heat of fusion by volume, J/m³: tin 59 kJ/kg at 7.3 g/cm³; eutectic tin–lead 37 at 8.4; tin–bismuth 45 at 8.6. Handbook figures, from
 * memory; alloys that are nearly tin are taken as tin.
 */
const TIN = 4.3e8;
const OTHERS: Partial<Record<AlloyName, number>> = { Sn63Pb37: 3.1e8, Sn42Bi58: 3.9e8 };

/** Of an alloy spread over a footprint so thick, m. */
export function latentOf(alloy: AlloyName, thicknessM: number): Latent {
  const { solidusC, liquidusC } = ALLOYS[alloy];
  return { heatJm2: (OTHERS[alloy] ?? TIN) * thicknessM, solidusC, liquidusC };
}

/** A pure metal melts at a point; for the sums it melts over so many kelvin. */
const LEAST_RANGE_K = 0.5;

/**
 * A joint layer that melts and freezes: after each step, heat above the solidus goes into melting before it goes into temperature
 * (enthalpy as a function of temperature, linear from solidus to liquidus; the temperature-recovery method, Dusinberre 1945, from
 * memory). The layer has no heat of its own in the mesh: the cells on either side of it give and take.
 */
export class MeltingLayer {
  private readonly lower: Int32Array;
  private readonly share: Float64Array;
  /** Of the two cells together, J/K, and of the layer, J. */
  private readonly capacity: Float64Array;
  private readonly heat: Float64Array;
  private readonly molten: Float64Array;
  private readonly plane: number;

  constructor(
    { grid, slabLayers }: Mesh,
    columns: Int32Array,
    private readonly solver: Pick<HeatSolver, 'temps' | 'capacityOf'>,
    private readonly latent: Latent,
  ) {
    this.plane = grid.nx * grid.ny;
    this.lower = columns.map((column) => (slabLayers - 1) * this.plane + column);
    this.share = Float64Array.from(this.lower, (i) => jointShare(grid, i));
    this.capacity = Float64Array.from(this.lower, (i) => solver.capacityOf(i) + solver.capacityOf(i + this.plane));
    this.heat = Float64Array.from(this.lower, (i, k) => {
      const area = grid.dx[columns[k] % grid.nx] * grid.dy[Math.floor(columns[k] / grid.nx)];
      return latent.heatJm2 * area * grid.cover[i + this.plane];
    });
    this.molten = new Float64Array(columns.length);
  }

  /** Puts temperatures right after a step. */
  settle(): void {
    const { temps } = this.solver;
    const { solidusC } = this.latent;
    const range = Math.max(LEAST_RANGE_K, this.latent.liquidusC - solidusC);
    for (let k = 0; k < this.lower.length; k++) {
      const [i, above] = [this.lower[k], this.lower[k] + this.plane];
      const trial = this.share[k] * temps[i] + (1 - this.share[k]) * temps[above];
      const was = this.molten[k];
      if ((was === 0 && trial <= solidusC) || (was === 1 && trial >= solidusC + range)) continue;
      // T + (Q/C)·f(T) is kept, with f from 0 at the solidus to 1 at the liquidus.
      const perMelt = this.heat[k] / this.capacity[k];
      const over = trial + perMelt * was - solidusC;
      const is = Math.min(1, Math.max(0, over / (range + perMelt)));
      const shift = perMelt * (was - is);
      temps[i] += shift;
      temps[above] += shift;
      this.molten[k] = is;
    }
  }

  /** Heat that is in the melt now, J. */
  latentJ(): number {
    return this.molten.reduce((sum, f, k) => sum + f * this.heat[k], 0);
  }
}
