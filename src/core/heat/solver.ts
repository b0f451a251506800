import {
  bottomFaces,
  cellCount,
  conductances,
  filledRuns,
  jointShare,
  openSides,
  topFaces,
  type Conductances,
  type HeatGrid,
} from './grid';
import { KELVIN } from './air';
import { STEFAN_BOLTZMANN } from './constants';
import { bestKernel, type Kernel } from './kernel';
import type { Factors, SolverArrays, Tridiagonal } from './typescript-kernel';

/**
 * Heat exchange at the faces, per column (ny × nx): film conductance in W/m²K and the temperature behind it in °C. The half
 * cell below the surface is put in series by the solver.
 */
export interface Films {
  readonly topFilm: Float64Array;
  readonly topC: Float64Array;
  readonly bottomFilm: Float64Array;
  readonly bottomC: Float64Array;
  /** Film of the side faces of board and parts, W/m²K, and the air temperature there. */
  readonly sideFilm: number;
  readonly sideC: number;
  /** Films of upward faces of the cells from `fromCell` on, per column, where they differ from those below. */
  readonly raised?: { readonly fromCell: number; readonly film: Float64Array; readonly airC: Float64Array };
  /** What the faces radiate beside their films; none where it is left out. */
  readonly radiation?: Radiation;
}

/** Emissivities of the faces, per column and of all sides, and what they look at. */
export interface Radiation {
  readonly top: Float64Array;
  readonly bottom: Float64Array;
  readonly side: number;
  readonly surroundingsC: number;
}

/** Air that changes while the films stay: a top face sees ambient + share · (outlet − ambient). */
export interface MovingAir {
  readonly ambientC: number;
  /** Per column. */
  readonly topShare: Float64Array;
}

/** What each face exchanges beside what the kernel knows: tops, bottoms, then sides. */
interface Faces {
  readonly tops: number;
  readonly bottoms: number;
  readonly cells: Int32Array;
  /** Column of every top, then of every bottom. */
  readonly columns: Int32Array;
  readonly areaM2: Float64Array;
  /** From the middle of the cell to the face, m²K/W. */
  readonly halfCell: Float64Array;
  readonly film: Float64Array;
  readonly airC: Float64Array;
  readonly emissivity: Float64Array;
  /** Share of the exchange that is with the film's air, and what the rest adds to the temperature behind the face, °C. */
  readonly viaFilm: Float64Array;
  readonly viaRadiationC: Float64Array;
}

const THETA = 0.5;

/** So many step lengths have their factors kept: as many as a plan uses. */
const KEPT_LENGTHS = 3;
/**
 * Factors along z follow the radiation's conductance only every so many seconds: they decide how a step is damped, not what flows in
 * it (measured: under 0.02 K over a plan).
 */
const FACTORS_HOLD_S = 5;
/** For so many seconds a surface's radiation is followed along its tangent: off by the square of a few kelvin (under 1 W/m²). */
const RADIATION_HOLDS_S = 0.9;
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
  private readonly faces: Faces;
  private readonly arrays: SolverArrays;
  private readonly kept = new Map<number, Factors>();
  /** Step lengths whose factors along z hold for the films as they are. */
  private readonly factored = new Set<number>();
  private radiation?: Radiation;
  private sinceFactoredS = 0;
  /** Films or temperatures have changed since the faces' conductances were made. */
  private stale: 'conductances' | 'air' | 'tops' | 'nothing' = 'conductances';
  private sinceRadiatedS = 0;
  /** What the air gives to a board at 0 °C, W: through the tops, and through all else. */
  private suppliedTopsW = 0;
  private suppliedRestW = 0;
  /** A step whose heat is known when it is known what the faces give back after it. */
  private open?: { readonly stepS: number; readonly suppliedW: number; readonly lostW: number };
  private readonly ledger = { inJ: 0, turnoverJ: 0 };

  constructor(
    readonly grid: HeatGrid,
    startC: number,
    kernel?: Kernel,
  ) {
    const n = cellCount(grid);
    const { nx } = grid;
    const plane = nx * grid.ny;
    this.g = conductances(grid);
    this.faces = facesOf(grid);
    this.kernel = kernel ?? bestKernel(nx, HeatSolver.bytesFor(grid));
    const padded = (source?: Float64Array): Float64Array => {
      const out = this.kernel.doubles(n + 2 * plane);
      if (source) out.set(source, plane);
      return out;
    };
    const capacity = this.kernel.doubles(n);
    capacity.set(this.g.capacity);
    const faces = this.faces.cells.length;
    const faceCells = this.kernel.indices(faces);
    faceCells.set(this.faces.cells);
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
    const mostFaces = 2 * n + plane;
    return 8 * ARRAYS * (n + 2 * plane) + 20 * mostFaces + 8 * n;
  }

  /** Sets the films. Pass `sameConductance` when only the air temperatures have changed: the factors are then kept. */
  setFilms(films: Films, sameConductance = false): void {
    this.close();
    const { tops, bottoms, cells, columns, film, airC, emissivity } = this.faces;
    this.radiation = films.radiation;
    for (let k = 0; k < tops; k++) {
      const raised = films.raised && cells[k] >= films.raised.fromCell ? films.raised : undefined;
      film[k] = (raised?.film ?? films.topFilm)[columns[k]];
      airC[k] = (raised?.airC ?? films.topC)[columns[k]];
      emissivity[k] = films.radiation?.top[columns[k]] ?? 0;
    }
    for (let k = tops; k < tops + bottoms; k++) {
      film[k] = films.bottomFilm[columns[k]];
      airC[k] = films.bottomC[columns[k]];
      emissivity[k] = films.radiation?.bottom[columns[k]] ?? 0;
    }
    film.fill(films.sideFilm, tops + bottoms);
    airC.fill(films.sideC, tops + bottoms);
    emissivity.fill(films.radiation?.side ?? 0, tops + bottoms);
    this.stale = 'conductances';
    if (!sameConductance) this.factored.clear();
  }

  /** Sets only the air behind the films of {@link setFilms}: tops through their shares, bottoms at one temperature. */
  setAir(air: MovingAir, riseK: number, bottomC: number): void {
    const { tops, bottoms, columns, airC } = this.faces;
    for (let k = 0; k < tops; k++) airC[k] = air.ambientC + riseK * air.topShare[columns[k]];
    if (this.stale === 'nothing') this.stale = 'tops';
    if (airC[tops] === bottomC) return;
    airC.fill(bottomC, tops, tops + bottoms);
    if (this.stale === 'tops') this.stale = 'air';
  }

  /** One step of `stepS` seconds. Returns what the faces gave back at its start, W. */
  step(stepS: number): number {
    if (this.radiation) {
      if (this.sinceRadiatedS > RADIATION_HOLDS_S) {
        this.close();
        this.stale = 'conductances';
      }
      if (this.sinceFactoredS > FACTORS_HOLD_S) this.factored.clear();
      this.sinceRadiatedS += stepS;
      this.sinceFactoredS += stepS;
    }
    const suppliedW = this.suppliedW();
    const lostW = this.kernel.step(this.arrays, this.factorsFor(stepS));
    this.close(lostW);
    this.open = { stepS, suppliedW, lostW };
    return lostW;
  }

  /** Heat that came in through the faces so far, and the sum of what went either way, J. */
  heatBalance(): { readonly inJ: number; readonly turnoverJ: number } {
    this.close();
    return { ...this.ledger };
  }

  /** Books the last step, whose faces give back so much at its end, W. */
  private close(lostAfterW?: number): void {
    if (!this.open) return;
    const { stepS, suppliedW, lostW } = this.open;
    const joules = (suppliedW - (lostW + (lostAfterW ?? this.givenBackW())) / 2) * stepS;
    this.ledger.inJ += joules;
    this.ledger.turnoverJ += Math.abs(joules);
    this.open = undefined;
  }

  /** Brings what the kernel knows of the faces up to the films, the air and, where they radiate, the temperatures as they are. */
  private exchangeNow(): void {
    if (this.stale === 'conductances') this.conductancesAnew();
    const { tops, cells } = this.faces;
    if (this.stale !== 'nothing') this.suppliedTopsW = this.airAnew(0, tops);
    if (this.stale === 'conductances' || this.stale === 'air') this.suppliedRestW = this.airAnew(tops, cells.length);
    this.stale = 'nothing';
  }

  /**
   * The faces' conductances: film and radiation side by side, the half cell below them in series. Radiation is the tangent of
   * εσ(T⁴ − Tr⁴) at the surface as it is now, 4εσTs³, with what it misses at that point in the temperature behind the face.
   */
  private conductancesAnew(): void {
    const { areaM2, halfCell, film, emissivity, cells, viaFilm, viaRadiationC } = this.faces;
    const { faceAir, faceC } = this.arrays;
    const around = (this.radiation?.surroundingsC ?? 0) + KELVIN;
    const around4 = around * around * around * around;
    for (let k = 0; k < cells.length; k++) {
      const areaHere = areaM2[k];
      const here = this.temps[cells[k]];
      const surface = here - (faceAir[k] / areaHere) * (here - faceC[k]) * halfCell[k] + KELVIN;
      const shines = emissivity[k] * STEFAN_BOLTZMANN;
      const cube = surface * surface * surface;
      const steep = 4 * shines * cube;
      const radiated = shines * (cube * surface - around4);
      const h = film[k] + steep;
      faceAir[k] = (areaHere * h) / (1 + h * halfCell[k]);
      viaFilm[k] = h > 0 ? film[k] / h : 0;
      viaRadiationC[k] = h > 0 ? (steep * (surface - KELVIN) - radiated) / h : 0;
    }
    this.sinceRadiatedS = 0;
  }

  /** The temperatures that some faces exchange with. Returns what they would give to a board at 0 °C, W. */
  private airAnew(from: number, end: number): number {
    const { airC, viaFilm, viaRadiationC } = this.faces;
    const { faceAir, faceC } = this.arrays;
    let sum = 0;
    for (let k = from; k < end; k++) {
      const behind = viaFilm[k] * airC[k] + viaRadiationC[k];
      faceC[k] = behind;
      sum += faceAir[k] * behind;
    }
    return sum;
  }

  /**
   * The assembled problem as bytes, so that another program can solve the very same one: sizes, conductances,
   * capacities, faces, start, step lengths (layout in bench/heat/adi.c).
   */
  exportProblem(startC: number, stepsS: readonly number[]): Uint8Array {
    const { nx, ny, nz } = this.grid;
    this.exchangeNow();
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

  /** Heat capacity of a cell, J/K. */
  capacityOf(cell: number): number {
    return this.g.capacity[cell];
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
    this.exchangeNow();
    return this.suppliedTopsW + this.suppliedRestW;
  }

  lostW(): number {
    this.exchangeNow();
    return this.givenBackW();
  }

  /** With the conductances of the last step. */
  private givenBackW(): number {
    const { temps } = this;
    const { faceCells, faceAir } = this.arrays;
    let sum = 0;
    for (let k = 0; k < faceCells.length; k++) sum += faceAir[k] * temps[faceCells[k]];
    return sum;
  }

  /** Temperature of a face to the air, by its place in {@link exchange}, °C. */
  faceTempC(face: number): number {
    this.exchangeNow();
    const { areaM2, halfCell, cells } = this.faces;
    const { faceAir, faceC } = this.arrays;
    const here = this.temps[cells[face]];
    return here - (faceAir[face] / areaM2[face]) * (here - faceC[face]) * halfCell[face];
  }

  /** Temperature on the joint layer between cell i and the cell above it: the mean of its two faces. */
  jointC(lower: number): number {
    const share = jointShare(this.grid, lower);
    return share * this.temps[lower] + (1 - share) * this.temps[lower + this.arrays.plane];
  }

  /** Faces to the air as the films set them: tops, bottoms, then sides; conductances in W/K. */
  exchange(): Pick<Faces, 'tops' | 'bottoms' | 'cells' | 'columns' | 'areaM2'> & { readonly air: Float64Array } {
    this.exchangeNow();
    return { ...this.faces, air: this.arrays.faceAir };
  }

  /** Factors for a step length, in arrays of their own, or in those of the length that was kept longest. */
  private factorsFor(stepS: number): Factors {
    let f = this.kept.get(stepS);
    if (!f) {
      const [oldest] = this.kept.keys();
      const full = this.kept.size === KEPT_LENGTHS;
      f = { ...(full ? this.kept.get(oldest)! : this.factorArrays()), stepS };
      if (full) this.kept.delete(oldest);
      this.kept.set(stepS, f);
      this.factored.delete(stepS);
      this.factor(f.x, stepS, this.g.gx, 1);
      this.factor(f.y, stepS, this.g.gy, this.grid.nx);
    }
    if (!this.factored.has(stepS)) {
      this.exchangeNow();
      this.factorZ(f);
      if (this.factored.size === 0) this.sinceFactoredS = 0;
      this.factored.add(stepS);
    }
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

function facesOf(grid: HeatGrid): Faces {
  const plane = grid.nx * grid.ny;
  const [top, bottom, area] = [topFaces(grid), bottomFaces(grid), openSides(grid)];
  const sides = Int32Array.from(area.keys()).filter((i) => area[i] > 0);
  const cells = Int32Array.from([...top.cells, ...bottom.cells, ...sides]);
  const flat = top.cells.length + bottom.cells.length;
  const zeros = (): Float64Array => new Float64Array(cells.length);
  return {
    tops: top.cells.length,
    bottoms: bottom.cells.length,
    cells,
    columns: cells.slice(0, flat).map((cell) => cell % plane),
    areaM2: Float64Array.from([...top.areaM2, ...bottom.areaM2, ...Array.from(sides, (i) => area[i])]),
    // The way in from a side is left out: a cell is wide against what its film lets through.
    halfCell: Float64Array.from(cells, (i, k) => (k < flat ? grid.dz[Math.floor(i / plane)] / (2 * grid.kz[i]) : 0)),
    ...{ film: zeros(), airC: zeros(), emissivity: zeros(), viaFilm: zeros(), viaRadiationC: zeros() },
  };
}
