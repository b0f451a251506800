import { cellCount, conductances, openSides, topCells, type Conductances, type HeatGrid } from './grid';
import { conduct, sweepX, sweepY, sweepZ } from './kernels';

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

/** Factors of the three sweeps for one step length. */
interface Factors {
  readonly stepS: number;
  readonly x: Tridiagonal;
  readonly y: Tridiagonal;
  z: Tridiagonal;
}

/** LDLᵀ of (C − θΔt·L) along one axis: `lower` multiplies the cell before, `inverse` is 1/D. */
interface Tridiagonal {
  readonly lower: Float64Array;
  readonly inverse: Float64Array;
}

const THETA = 0.5;

/**
 * Transient conduction by the Douglas alternating-direction scheme in delta form, θ = ½:
 *
 *   d = Δt·F(Tⁿ);  (C − θΔtLx) d₁ = d;  (C − θΔtLy) d₂ = C d₁;  (C − θΔtLz) d₃ = C d₂;  T += d₃
 *
 * Source: Douglas & Gunn (1964). The factors are kept between steps; only the z factors depend on the films.
 */
export class HeatSolver {
  /** Cell temperatures, °C: a view into `padded`. */
  readonly temps: Float64Array;
  private readonly g: Conductances;
  private readonly top: Int32Array;
  private readonly delta: Float64Array;
  /** Conductance from the surface cells to the air, W/K, per column. */
  private readonly topAir: Float64Array;
  private readonly bottomAir: Float64Array;
  /** Cells with open side faces, and their conductance to the air, W/K. */
  private readonly sideCells: Int32Array;
  private readonly sideArea: Float64Array;
  private readonly sideAir: Float64Array;
  private films: Films | undefined;
  private readonly kept = new Map<number, Factors>();
  /** One plane of padding on either side lets the flow pass run without asking for edges: conductances there are 0. */
  private readonly padded: {
    readonly t: Float64Array;
    readonly gx: Float64Array;
    readonly gy: Float64Array;
    readonly gz: Float64Array;
  };

  constructor(
    readonly grid: HeatGrid,
    startC: number,
  ) {
    const n = cellCount(grid);
    const plane = grid.nx * grid.ny;
    this.g = conductances(grid);
    this.top = topCells(grid);
    const pad = (source: Float64Array): Float64Array => {
      const out = new Float64Array(n + 2 * plane);
      out.set(source, plane);
      return out;
    };
    this.padded = {
      t: pad(new Float64Array(n).fill(startC)),
      gx: pad(this.g.gx),
      gy: pad(this.g.gy),
      gz: pad(this.g.gz),
    };
    this.temps = this.padded.t.subarray(plane, plane + n);
    this.delta = new Float64Array(n);
    this.topAir = new Float64Array(plane);
    this.bottomAir = new Float64Array(plane);
    const area = openSides(grid);
    this.sideCells = Int32Array.from(Array.from(area.keys()).filter((i) => area[i] > 0));
    this.sideArea = Float64Array.from(this.sideCells, (i) => area[i]);
    this.sideAir = new Float64Array(this.sideCells.length);
  }

  /** Sets the films. Pass `sameConductance` when only the air temperatures have changed: the factors are then kept. */
  setFilms(films: Films, sameConductance = false): void {
    this.films = films;
    if (sameConductance && this.kept.size > 0) return;
    const { nx, ny, dx, dy, dz, kz } = this.grid;
    const plane = nx * ny;
    for (let y = 0, i = 0; y < ny; y++) {
      for (let x = 0; x < nx; x++, i++) {
        const area = dx[x] * dy[y];
        const top = this.top[i];
        this.topAir[i] = top < 0 ? 0 : surfaceConductance(films.topFilm[i], dz[Math.floor(top / plane)], kz[top], area);
        this.bottomAir[i] = top < 0 ? 0 : surfaceConductance(films.bottomFilm[i], dz[0], kz[i], area);
      }
    }
    for (let k = 0; k < this.sideAir.length; k++) this.sideAir[k] = films.sideFilm * this.sideArea[k];
    for (const f of this.kept.values()) f.z = this.factorZ(f.stepS);
  }

  /** One step of `stepS` seconds. */
  step(stepS: number): void {
    let f = this.kept.get(stepS);
    if (!f)
      this.kept.set(stepS, (f = { stepS, x: this.factorX(stepS), y: this.factorY(stepS), z: this.factorZ(stepS) }));
    const { delta, padded, temps } = this;
    const { nx, ny, nz } = this.grid;
    const { capacity } = this.g;
    conduct(delta, padded.t, padded.gx, padded.gy, padded.gz, nx, nx * ny, stepS);
    this.addFilms(stepS);
    sweepX(delta, f.x.lower, f.x.inverse, nx);
    sweepY(delta, capacity, f.y.lower, f.y.inverse, nx, nx * ny, nz);
    sweepZ(delta, temps, capacity, f.z.lower, f.z.inverse, nx * ny);
  }

  /**
   * The assembled problem as bytes, so that another program can solve the very same one: sizes, conductances,
   * capacities, films, start, step lengths (layout in bench/heat/adi.c).
   */
  exportProblem(startC: number, stepsS: readonly number[]): Uint8Array {
    const { nx, ny, nz } = this.grid;
    const { gx, gy, gz, capacity } = this.g;
    const films = this.films!;
    const pieces = [
      Int32Array.from([nx, ny, nz, stepsS.length]),
      ...[gx, gy, gz, capacity, this.topAir, this.bottomAir],
      this.top,
      Int32Array.from([this.sideCells.length]),
      this.sideCells,
      this.sideAir,
      ...[films.topC, films.bottomC, Float64Array.from([films.sideC, startC]), Float64Array.from(stepsS)],
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

  /** Heat flowing in through all faces now, watts. */
  inflowW(): number {
    const films = this.films!;
    let sum = 0;
    for (let i = 0; i < this.topAir.length; i++) {
      if (this.top[i] < 0) continue;
      sum +=
        this.topAir[i] * (films.topC[i] - this.temps[this.top[i]]) +
        this.bottomAir[i] * (films.bottomC[i] - this.temps[i]);
    }
    for (let k = 0; k < this.sideAir.length; k++) {
      sum += this.sideAir[k] * (films.sideC - this.temps[this.sideCells[k]]);
    }
    return sum;
  }

  /** Temperature on the joint layer between cell i and the cell above it: the mean of its two faces. */
  jointC(lower: number): number {
    const { grid, temps } = this;
    const plane = grid.nx * grid.ny;
    const z = Math.floor(lower / plane);
    const below = (2 * grid.kz[lower]) / grid.dz[z];
    const above = (2 * grid.kz[lower + plane]) / grid.dz[z + 1];
    const flux = (temps[lower + plane] - temps[lower]) / (1 / below + 1 / grid.jointConductance[lower] + 1 / above);
    return (temps[lower] + flux / below + temps[lower + plane] - flux / above) / 2;
  }

  /** Adds what the films give during the step. */
  private addFilms(stepS: number): void {
    const { topC, bottomC } = this.films!;
    const { delta, top, topAir, bottomAir, temps } = this;
    for (let i = 0; i < top.length; i++) {
      const k = top[i];
      if (k < 0) continue;
      delta[k] += stepS * topAir[i] * (topC[i] - temps[k]);
      delta[i] += stepS * bottomAir[i] * (bottomC[i] - temps[i]);
    }
    const { sideCells, sideAir } = this;
    const { sideC } = this.films!;
    for (let k = 0; k < sideAir.length; k++) delta[sideCells[k]] += stepS * sideAir[k] * (sideC - temps[sideCells[k]]);
  }

  private factorX(stepS: number): Tridiagonal {
    return this.factor(stepS, this.g.gx, 1, (i) => i % this.grid.nx === 0);
  }

  private factorY(stepS: number): Tridiagonal {
    const { nx, ny } = this.grid;
    return this.factor(stepS, this.g.gy, nx, (i) => Math.floor(i / nx) % ny === 0);
  }

  private factorZ(stepS: number): Tridiagonal {
    const plane = this.grid.nx * this.grid.ny;
    const air = new Float64Array(this.temps.length);
    for (let i = 0; i < plane; i++) {
      if (this.top[i] < 0) continue;
      air[this.top[i]] += this.topAir[i];
      air[i] += this.bottomAir[i];
    }
    for (let k = 0; k < this.sideAir.length; k++) air[this.sideCells[k]] += this.sideAir[k];
    return this.factor(stepS, this.g.gz, plane, (i) => i < plane, air);
  }

  /** LDLᵀ of C + θΔt·(conductances along one axis + air), cells in increasing order. */
  private factor(
    stepS: number,
    g: Float64Array,
    stride: number,
    isFirst: (i: number) => boolean,
    air?: Float64Array,
  ): Tridiagonal {
    const n = g.length;
    const lower = new Float64Array(n);
    const inverse = new Float64Array(n);
    const w = THETA * stepS;
    for (let i = 0; i < n; i++) {
      const before = isFirst(i) ? 0 : g[i - stride];
      let diagonal = this.g.capacity[i] + w * (before + g[i] + (air ? air[i] : 0));
      if (before > 0) {
        lower[i] = -w * before * inverse[i - stride];
        diagonal += lower[i] * w * before;
      }
      inverse[i] = 1 / diagonal;
    }
    return { lower, inverse };
  }
}

/** Film in series with half the surface cell, W/K. */
function surfaceConductance(film: number, thickness: number, k: number, area: number): number {
  return film > 0 ? area / (1 / film + thickness / (2 * k)) : 0;
}
