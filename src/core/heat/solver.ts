import { cellCount, conductances, filledRuns, openSides, topCells, type Conductances, type HeatGrid } from './grid';
import { bestKernel, type Kernel } from './kernel';
import type { Factors, SolverArrays, Tridiagonal } from './typescript-kernel';

/**
 * Heat exchange at the two faces of the board, per column (ny × nx): film conductance in W/m²K and the temperature
 * behind it in °C. The half cell below the surface is put in series by the solver.
 */
export interface Films {
  readonly topFilm: Float64Array;
  readonly topC: Float64Array;
  readonly bottomFilm: Float64Array;
  readonly bottomC: Float64Array;
  /** Film of the side faces of board and parts, W/m²K, and the air temperature there. */
  readonly sideFilm: number;
  readonly sideC: number;
}

/** Air that changes while the films stay: a top face sees ambient + share · (outlet − ambient). */
export interface MovingAir {
  readonly ambientC: number;
  /** Per column. */
  readonly topShare: Float64Array;
}

const THETA = 0.5;

/** So many step lengths have their factors kept; a plan uses two. */
const KEPT_LENGTHS = 3;
/** Arrays of one double per cell: six of the problem, and six of factors for each step length kept. */
const ARRAYS = 6 + 6 * KEPT_LENGTHS;

/**
 * Transient conduction by the Douglas alternating-direction scheme in delta form, θ = ½:
 *
 *   d = Δt·F(Tⁿ);  (C − θΔtLx) d₁ = d;  (C − θΔtLy) d₂ = C d₁;  (C − θΔtLz) d₃ = C d₂;  T += d₃
 *
 * Source: Douglas & Gunn (1964). The factors are kept between steps; only the z factors depend on the films.
 */
export class HeatSolver {
  /** Cell temperatures, °C: a view into the kernel's array. */
  readonly temps: Float64Array;
  readonly kernel: Kernel;
  private readonly g: Conductances;
  /** Topmost filled cell of every column, −1 where there is none. */
  private readonly top: Int32Array;
  private readonly filledColumns: Int32Array;
  private readonly sideCells: Int32Array;
  private readonly sideArea: Float64Array;
  /** Faces to the air: tops of the filled columns, their bottoms, then the sides. */
  private readonly arrays: SolverArrays;
  private readonly kept = new Map<number, Factors>();
  private moving?: {
    readonly of: MovingAir;
    readonly share: Float64Array;
    readonly perRiseW: number;
    readonly perBottomW: number;
    readonly stillW: number;
  };

  constructor(
    readonly grid: HeatGrid,
    startC: number,
    kernel?: Kernel,
  ) {
    const n = cellCount(grid);
    const { nx } = grid;
    const plane = nx * grid.ny;
    this.g = conductances(grid);
    this.top = topCells(grid);
    this.filledColumns = Int32Array.from(this.top.keys()).filter((i) => this.top[i] >= 0);
    const area = openSides(grid);
    this.sideCells = Int32Array.from(area.keys()).filter((i) => area[i] > 0);
    this.sideArea = Float64Array.from(this.sideCells, (i) => area[i]);
    this.kernel = kernel ?? bestKernel(nx, HeatSolver.bytesFor(grid));
    const padded = (source?: Float64Array): Float64Array => {
      const out = this.kernel.doubles(n + 2 * plane);
      if (source) out.set(source, plane);
      return out;
    };
    const capacity = this.kernel.doubles(n);
    capacity.set(this.g.capacity);
    const columns = this.filledColumns.length;
    const faces = 2 * columns + this.sideCells.length;
    const faceCells = this.kernel.indices(faces);
    this.filledColumns.forEach((column, k) => {
      faceCells[k] = this.top[column];
      faceCells[columns + k] = column;
    });
    faceCells.set(this.sideCells, 2 * columns);
    const { bounds, layers } = filledRuns(grid);
    const runs = this.kernel.indices(bounds.length);
    runs.set(bounds);
    this.arrays = {
      ...{ nx, plane, n, capacity, runs, layers, faceCells },
      ...{ t: padded(), gx: padded(this.g.gx), gy: padded(this.g.gy), gz: padded(this.g.gz), delta: padded() },
      faceAir: this.kernel.doubles(faces),
      faceC: this.kernel.doubles(faces),
    };
    this.temps = this.arrays.t.subarray(plane, plane + n).fill(startC);
  }

  /** Room that a kernel must have for a solver on a grid, bytes. */
  static bytesFor(grid: HeatGrid): number {
    const [n, plane] = [cellCount(grid), grid.nx * grid.ny];
    const mostFaces = 2 * plane + n;
    return 8 * ARRAYS * (n + 2 * plane) + 20 * mostFaces + 8 * n;
  }

  /** Sets the films. Pass `sameConductance` when only the air temperatures have changed: the factors are then kept. */
  setFilms(films: Films, sameConductance = false): void {
    const { filledColumns: columns, sideCells, top } = this;
    const { faceC, faceAir } = this.arrays;
    const count = columns.length;
    this.moving = undefined;
    for (let k = 0; k < count; k++) {
      faceC[k] = films.topC[columns[k]];
      faceC[count + k] = films.bottomC[columns[k]];
    }
    faceC.fill(films.sideC, 2 * count);
    if (sameConductance && this.kept.size > 0) return;
    const { nx, dx, dy, dz, kz } = this.grid;
    const { plane } = this.arrays;
    for (let k = 0; k < count; k++) {
      const i = columns[k];
      const area = dx[i % nx] * dy[Math.floor(i / nx)];
      faceAir[k] = surfaceConductance(films.topFilm[i], dz[Math.floor(top[i] / plane)], kz[top[i]], area);
      faceAir[count + k] = surfaceConductance(films.bottomFilm[i], dz[0], kz[i], area);
    }
    for (let k = 0; k < sideCells.length; k++) faceAir[2 * count + k] = films.sideFilm * this.sideArea[k];
    for (const f of this.kept.values()) this.factorZ(f);
  }

  /**
   * Sets only the air behind the films of {@link setFilms}: tops through their shares, bottoms at one temperature.
   * @returns what the air would give to a board at 0 °C, W.
   */
  setAir(air: MovingAir, riseK: number, bottomC: number): number {
    const { faceC, faceAir } = this.arrays;
    const count = this.filledColumns.length;
    if (this.moving?.of !== air) {
      const share = Float64Array.from(this.filledColumns, (column) => air.topShare[column]);
      let [perRiseW, perBottomW, stillW] = [0, 0, 0];
      for (let k = 0; k < count; k++) {
        perRiseW += faceAir[k] * share[k];
        perBottomW += faceAir[count + k];
        stillW += faceAir[k] * air.ambientC;
      }
      for (let k = 2 * count; k < faceAir.length; k++) stillW += faceAir[k] * faceC[k];
      this.moving = { of: air, share, perRiseW, perBottomW, stillW };
    }
    const { share, perRiseW, perBottomW, stillW } = this.moving;
    for (let k = 0; k < count; k++) faceC[k] = air.ambientC + riseK * share[k];
    if (faceC[count] !== bottomC) faceC.fill(bottomC, count, 2 * count);
    return stillW + riseK * perRiseW + bottomC * perBottomW;
  }

  /** One step of `stepS` seconds. Returns what the faces gave back at its start, W. */
  step(stepS: number): number {
    return this.kernel.step(this.arrays, this.kept.get(stepS) ?? this.newFactors(stepS));
  }

  /**
   * The assembled problem as bytes, so that another program can solve the very same one: sizes, conductances,
   * capacities, faces, start, step lengths (layout in bench/heat/adi.c).
   */
  exportProblem(startC: number, stepsS: readonly number[]): Uint8Array {
    const { nx, ny, nz } = this.grid;
    const { gx, gy, gz, capacity } = this.g;
    const { faceCells, faceAir, faceC } = this.arrays;
    const pieces = [
      Int32Array.from([nx, ny, nz, stepsS.length, faceCells.length]),
      ...[gx, gy, gz, capacity, faceCells, faceAir, faceC, Float64Array.from([startC, ...stepsS])],
    ].map((a) => new Uint8Array(a.buffer, a.byteOffset, a.byteLength));
    const bytes = new Uint8Array(pieces.reduce((sum, p) => sum + p.length, 0));
    let at = 0;
    for (const p of pieces) {
      bytes.set(p, at);
      at += p.length;
    }
    return bytes;
  }

  /** Heat held above `referenceC`, joules. */
  storedJ(referenceC: number): number {
    const { temps, grid } = this;
    let sum = 0;
    for (let i = 0; i < temps.length; i++)
      if (grid.heatCapacity[i] > 0) sum += this.g.capacity[i] * (temps[i] - referenceC);
    return sum;
  }

  /** Heat flowing in through all faces now, watts: what the air would give to a board at 0 °C, less what the board gives back. */
  inflowW(): number {
    return this.suppliedW() - this.lostW();
  }

  suppliedW(): number {
    const { faceAir, faceC } = this.arrays;
    let sum = 0;
    for (let k = 0; k < faceAir.length; k++) sum += faceAir[k] * faceC[k];
    return sum;
  }

  lostW(): number {
    const { temps } = this;
    const { faceCells, faceAir } = this.arrays;
    let sum = 0;
    for (let k = 0; k < faceCells.length; k++) sum += faceAir[k] * temps[faceCells[k]];
    return sum;
  }

  /** Temperature on the joint layer between cell i and the cell above it: the mean of its two faces. */
  jointC(lower: number): number {
    const share = jointShare(this.grid, lower);
    return share * this.temps[lower] + (1 - share) * this.temps[lower + this.arrays.plane];
  }

  /** Faces to the air as the films set them: tops of the filled columns, their bottoms, then sides; conductances in W/K. */
  faces(): { readonly cells: Int32Array; readonly air: Float64Array; readonly columns: Int32Array } {
    return { cells: this.arrays.faceCells, air: this.arrays.faceAir, columns: this.filledColumns };
  }

  /** Factors for a step length, in arrays of their own, or in those of the length that was kept longest. */
  private newFactors(stepS: number): Factors {
    const [oldest] = this.kept.keys();
    const full = this.kept.size === KEPT_LENGTHS;
    const f: Factors = { ...(full ? this.kept.get(oldest)! : this.factorArrays()), stepS };
    if (full) this.kept.delete(oldest);
    this.kept.set(stepS, f);
    this.factor(f.x, stepS, this.g.gx, 1);
    this.factor(f.y, stepS, this.g.gy, this.grid.nx);
    this.factorZ(f);
    return f;
  }

  private factorArrays(): Omit<Factors, 'stepS'> {
    const { n, plane } = this.arrays;
    const pair = (): Tridiagonal => ({
      lower: this.kernel.doubles(n + 2 * plane),
      inverse: this.kernel.doubles(n),
    });
    return { x: pair(), y: pair(), z: pair() };
  }

  private factorZ({ z, stepS }: Factors): void {
    const { faceCells, faceAir, n, plane } = this.arrays;
    const air = new Float64Array(n);
    for (let k = 0; k < faceCells.length; k++) air[faceCells[k]] += faceAir[k];
    this.factor(z, stepS, this.g.gz, plane, air);
  }

  /** LDLᵀ of C + θΔt·(conductances along one axis + air); no conductance leads into the first cell of a line. */
  private factor({ lower, inverse }: Tridiagonal, stepS: number, g: Float64Array, stride: number, air?: Float64Array) {
    const { n, plane, capacity } = this.arrays;
    const w = THETA * stepS;
    for (let i = 0; i < n; i++) {
      const before = i < stride ? 0 : g[i - stride];
      let diagonal = capacity[i] + w * (before + g[i] + (air ? air[i] : 0));
      lower[plane + i] = 0;
      if (before > 0) {
        lower[plane + i] = -w * before * inverse[i - stride];
        diagonal += lower[plane + i] * w * before;
      }
      inverse[i] = 1 / diagonal;
    }
  }
}

/** Film in series with half the surface cell, W/K. */
function surfaceConductance(film: number, thickness: number, k: number, area: number): number {
  return film > 0 ? area / (1 / film + thickness / (2 * k)) : 0;
}

/** Share of the lower cell's temperature in that of the joint layer above it, the upper cell has the rest. */
export function jointShare(grid: HeatGrid, lower: number): number {
  const plane = grid.nx * grid.ny;
  const z = Math.floor(lower / plane);
  const below = grid.dz[z] / (2 * grid.kz[lower]);
  const above = grid.dz[z + 1] / (2 * grid.kz[lower + plane]);
  const whole = below + 1 / grid.jointConductance[lower] + above;
  return (1 + (above - below) / whole) / 2;
}
