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
  /** Share of the cell's area in the plane that is filled: 1 but along edges that do not follow the mesh. */
  readonly cover: Float64Array;
  /** True height of what is in the cell over the cell's own; its material is scaled so that the cell conducts and holds the same. */
  readonly stretch: Float64Array;
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
    cover: new Float64Array(n).fill(1),
    stretch: new Float64Array(n).fill(1),
  };
}

/** Faces that look up or down into the air: the cell of each and its area, m². */
export interface FlatFaces {
  readonly cells: Int32Array;
  readonly areaM2: Float64Array;
}

/** Slivers of a face below this share of their cell are left out. */
const LEAST_SHARE = 1e-6;

/** Upward faces, column by column and from the bottom up: what of a cell the one above it leaves bare. */
export function topFaces(grid: HeatGrid): FlatFaces {
  const { nx, ny, nz, dx, dy, heatCapacity, cover } = grid;
  const plane = nx * ny;
  const cells: number[] = [];
  const areas: number[] = [];
  for (let column = 0; column < plane; column++) {
    const area = dx[column % nx] * dy[Math.floor(column / nx)];
    for (let i = column; i < nz * plane; i += plane) {
      if (heatCapacity[i] === 0) continue;
      const above = i + plane < nz * plane && heatCapacity[i + plane] > 0 ? cover[i + plane] : 0;
      const bare = cover[i] - above;
      if (bare < LEAST_SHARE) continue;
      cells.push(i);
      areas.push(bare * area);
    }
  }
  return { cells: Int32Array.from(cells), areaM2: Float64Array.from(areas) };
}

/** Downward faces of the lowest layer. */
export function bottomFaces({ nx, ny, dx, dy, heatCapacity, cover }: HeatGrid): FlatFaces {
  const filled = Int32Array.from(heatCapacity.subarray(0, nx * ny).keys()).filter((i) => heatCapacity[i] > 0);
  return { cells: filled, areaM2: Float64Array.from(filled, (i) => cover[i] * dx[i % nx] * dy[Math.floor(i / nx)]) };
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
  const { nx, ny, nz, dx, dy, dz, kxy, heatCapacity, cover } = grid;
  const n = nx * ny * nz;
  const plane = nx * ny;
  const out: Conductances = {
    gx: new Float64Array(n),
    gy: new Float64Array(n),
    gz: new Float64Array(n),
    capacity: new Float64Array(n),
  };
  /** Where one cell is filled less than the other, its filling is taken to end short of its far side. */
  const beside = (a: number, b: number, lengthA: number, lengthB: number, across: number): number => {
    const wide = Math.max(cover[a], cover[b]);
    return (across * wide * wide) / ((lengthA * cover[a]) / (2 * kxy[a]) + (lengthB * cover[b]) / (2 * kxy[b]));
  };
  for (let z = 0, i = 0; z < nz; z++) {
    for (let y = 0; y < ny; y++) {
      for (let x = 0; x < nx; x++, i++) {
        const filled = heatCapacity[i] > 0;
        out.capacity[i] = filled ? heatCapacity[i] * cover[i] * dx[x] * dy[y] * dz[z] : 1;
        if (!filled) continue;
        if (x + 1 < nx && heatCapacity[i + 1] > 0) out.gx[i] = beside(i, i + 1, dx[x], dx[x + 1], dy[y] * dz[z]);
        if (y + 1 < ny && heatCapacity[i + nx] > 0) out.gy[i] = beside(i, i + nx, dy[y], dy[y + 1], dx[x] * dz[z]);
        if (z + 1 < nz && heatCapacity[i + plane] > 0) {
          const area = dx[x] * dy[y];
          out.gz[i] = area / (resistance(grid, i, z) + jointResistance(grid, i) + resistance(grid, i + plane, z + 1));
        }
      }
    }
  }
  return out;
}

/** From the middle of a cell to its upper or lower face, K per W/m² of the whole cell. */
const resistance = ({ dz, kz, cover }: HeatGrid, i: number, z: number): number => dz[z] / (2 * kz[i] * cover[i]);

/** Of the layer between a cell and the one above it, over what of them lies on one another. */
const jointResistance = ({ nx, ny, jointConductance, cover }: HeatGrid, i: number): number =>
  1 / (jointConductance[i] * Math.min(cover[i], cover[i + nx * ny]));

/** Share of the lower cell's temperature in that of the joint layer above it; the upper cell has the rest. */
export function jointShare(grid: HeatGrid, lower: number): number {
  const plane = grid.nx * grid.ny;
  const z = Math.floor(lower / plane);
  const below = resistance(grid, lower, z);
  const above = resistance(grid, lower + plane, z + 1);
  return (1 + (above - below) / (below + jointResistance(grid, lower) + above)) / 2;
}

/** Area of every cell's side faces that look into air or past the grid's edge, m²; 0 inside the material. */
export function openSides(grid: HeatGrid): Float64Array {
  const { nx, ny, nz, dx, dy, dz, heatCapacity, cover, stretch } = grid;
  const area = new Float64Array(nx * ny * nz);
  for (let z = 0, i = 0; z < nz; z++) {
    for (let y = 0; y < ny; y++) {
      for (let x = 0; x < nx; x++, i++) {
        if (heatCapacity[i] === 0) continue;
        const height = dz[z] * stretch[i];
        /** A cell that is filled in part ends inside itself: its side is as wide as the filling of the cell behind it. */
        const open = (inside: boolean, neighbour: number, hasBehind: boolean, behind: number, length: number): void => {
          if (inside && heatCapacity[neighbour] > 0) return;
          const filledBehind = hasBehind && heatCapacity[behind] > 0 ? cover[behind] : 0;
          area[i] += length * Math.max(cover[i], filledBehind) * height;
        };
        open(x > 0, i - 1, x + 1 < nx, i + 1, dy[y]);
        open(x + 1 < nx, i + 1, x > 0, i - 1, dy[y]);
        open(y > 0, i - nx, y + 1 < ny, i + nx, dx[x]);
        open(y + 1 < ny, i + nx, y > 0, i - nx, dx[x]);
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
