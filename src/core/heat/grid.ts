/**
 * A block of cells with material and films: what the solver works on. Cells are stored x fastest, then y, then z;
 * z counts from the bottom up. A cell with `heatCapacity` 0 is empty (air) and conducts nothing.
 */
export interface HeatGrid {
  readonly nx: number;
  readonly ny: number;
  readonly nz: number;
  /** Cell sizes, metres. */
  readonly dx: Float64Array;
  readonly dy: Float64Array;
  readonly dz: Float64Array;
  /** Conductivities per cell, W/m·K: in the plane and through it. */
  readonly kxy: Float64Array;
  readonly kz: Float64Array;
  /** Volumetric heat capacity per cell, J/m³K; 0 marks an empty cell. */
  readonly heatCapacity: Float64Array;
  /** Extra conductance per area between layer z and z+1, W/m²K, per (z, y, x); Infinity where they touch. */
  readonly jointConductance: Float64Array;
}

export const cellCount = (grid: HeatGrid): number => grid.nx * grid.ny * grid.nz;

/** An empty grid of the given cell sizes (metres), joints perfect, all cells empty. */
export function emptyGrid(dx: Float64Array, dy: Float64Array, dz: Float64Array): HeatGrid {
  const n = dx.length * dy.length * dz.length;
  return {
    nx: dx.length,
    ny: dy.length,
    nz: dz.length,
    dx,
    dy,
    dz,
    kxy: new Float64Array(n),
    kz: new Float64Array(n),
    heatCapacity: new Float64Array(n),
    jointConductance: new Float64Array(n).fill(Infinity),
  };
}

/** For every column, the index of the topmost filled cell, or −1. The bottom surface is always layer 0. */
export function topCells(grid: HeatGrid): Int32Array {
  const plane = grid.nx * grid.ny;
  const top = new Int32Array(plane).fill(-1);
  for (let z = 0; z < grid.nz; z++)
    for (let i = 0; i < plane; i++) if (grid.heatCapacity[z * plane + i] > 0) top[i] = z * plane + i;
  return top;
}

/** Conductances between neighbours, W/K: `gx[i]` joins cell i and i+1, `gy[i]` i and i+nx, `gz[i]` i and i+nx·ny. */
export interface Conductances {
  readonly gx: Float64Array;
  readonly gy: Float64Array;
  readonly gz: Float64Array;
  /** Heat capacity per cell, J/K; 1 in empty cells so that they stay where they are. */
  readonly capacity: Float64Array;
}

export function conductances(grid: HeatGrid): Conductances {
  const { nx, ny, nz, dx, dy, dz, kxy, kz, heatCapacity } = grid;
  const n = nx * ny * nz;
  const plane = nx * ny;
  const out: Conductances = {
    gx: new Float64Array(n),
    gy: new Float64Array(n),
    gz: new Float64Array(n),
    capacity: new Float64Array(n),
  };
  const series = (lengthA: number, kA: number, lengthB: number, kB: number, area: number): number =>
    area / (lengthA / (2 * kA) + lengthB / (2 * kB));
  for (let z = 0, i = 0; z < nz; z++) {
    for (let y = 0; y < ny; y++) {
      for (let x = 0; x < nx; x++, i++) {
        const filled = heatCapacity[i] > 0;
        out.capacity[i] = filled ? heatCapacity[i] * dx[x] * dy[y] * dz[z] : 1;
        if (!filled) continue;
        if (x + 1 < nx && heatCapacity[i + 1] > 0)
          out.gx[i] = series(dx[x], kxy[i], dx[x + 1], kxy[i + 1], dy[y] * dz[z]);
        if (y + 1 < ny && heatCapacity[i + nx] > 0)
          out.gy[i] = series(dy[y], kxy[i], dy[y + 1], kxy[i + nx], dx[x] * dz[z]);
        if (z + 1 < nz && heatCapacity[i + plane] > 0) {
          const area = dx[x] * dy[y];
          out.gz[i] = area / (dz[z] / (2 * kz[i]) + 1 / grid.jointConductance[i] + dz[z + 1] / (2 * kz[i + plane]));
        }
      }
    }
  }
  return out;
}

/** Area of every cell's side faces that look into air or past the grid's edge, m²; 0 inside the material. */
export function openSides(grid: HeatGrid): Float64Array {
  const { nx, ny, nz, dx, dy, dz, heatCapacity } = grid;
  const area = new Float64Array(nx * ny * nz);
  for (let z = 0, i = 0; z < nz; z++) {
    for (let y = 0; y < ny; y++) {
      for (let x = 0; x < nx; x++, i++) {
        if (heatCapacity[i] === 0) continue;
        const open = (inside: boolean, neighbour: number): boolean => !inside || heatCapacity[neighbour] === 0;
        if (open(x > 0, i - 1)) area[i] += dy[y] * dz[z];
        if (open(x + 1 < nx, i + 1)) area[i] += dy[y] * dz[z];
        if (open(y > 0, i - nx)) area[i] += dx[x] * dz[z];
        if (open(y + 1 < ny, i + nx)) area[i] += dx[x] * dz[z];
      }
    }
  }
  return area;
}

/**
 * Runs of filled cells in order: first cell and one past the last, each within one layer.
 * `layers` holds for every layer the index in `bounds` of its first run, and one more past the last.
 */
export function filledRuns({ nx, ny, nz, heatCapacity }: HeatGrid): { bounds: Int32Array; layers: Int32Array } {
  const plane = nx * ny;
  const bounds: number[] = [];
  const layers = new Int32Array(nz + 1);
  for (let z = 0; z < nz; z++) {
    layers[z] = bounds.length;
    for (let i = z * plane; i < (z + 1) * plane; i++) {
      if (heatCapacity[i] === 0) continue;
      if (bounds.length > layers[z] && bounds[bounds.length - 1] === i) bounds[bounds.length - 1] = i + 1;
      else bounds.push(i, i + 1);
    }
  }
  layers[nz] = bounds.length;
  return { bounds: Int32Array.from(bounds), layers };
}
