import { seededRandom } from '../math';
import { bottomFaces, conductances, emptyGrid, topFaces, type HeatGrid } from './grid';
import { HeatSolver, type Films } from './solver';

/**
 * The slow twin of the solver: the same physics as dense equations, stepped by Crank–Nicolson with Gaussian
 * elimination. Every conductance is written out once, without typed-array tricks.
 */
class DenseTwin {
  readonly temps: number[];
  private readonly n: number;
  private readonly capacity: number[];
  /** dT/dt · C = −K·T + source */
  private readonly k: number[][];
  private readonly source: number[];

  constructor(grid: HeatGrid, films: Films, startC: number) {
    const g = conductances(grid);
    this.n = g.capacity.length;
    this.capacity = [...g.capacity];
    this.temps = Array(this.n).fill(startC);
    this.k = Array.from({ length: this.n }, () => Array(this.n).fill(0));
    this.source = Array(this.n).fill(0);
    const plane = grid.nx * grid.ny;
    for (let i = 0; i < this.n; i++) {
      this.join(i, i + 1, g.gx[i]);
      this.join(i, i + grid.nx, g.gy[i]);
      this.join(i, i + plane, g.gz[i]);
    }
    const half = (cell: number): number => grid.dz[Math.floor(cell / plane)] / (2 * grid.kz[cell]);
    const top = topFaces(grid);
    top.cells.forEach((cell, k) => {
      const column = cell % plane;
      this.toAir(cell, top.areaM2[k] / (1 / films.topFilm[column] + half(cell)), films.topC[column]);
    });
    const bottom = bottomFaces(grid);
    bottom.cells.forEach((cell, k) => {
      this.toAir(cell, bottom.areaM2[k] / (1 / films.bottomFilm[cell] + half(cell)), films.bottomC[cell]);
    });
  }

  private join(a: number, b: number, conductance: number): void {
    if (!conductance) return;
    this.k[a][a] += conductance;
    this.k[b][b] += conductance;
    this.k[a][b] -= conductance;
    this.k[b][a] -= conductance;
  }

  private toAir(cell: number, conductance: number, airC: number): void {
    this.k[cell][cell] += conductance;
    this.source[cell] += conductance * airC;
  }

  /** (C + ½ΔtK)·Tⁿ⁺¹ = (C − ½ΔtK)·Tⁿ + Δt·source */
  step(stepS: number): void {
    const a = this.k.map((row, i) => row.map((v, j) => (stepS / 2) * v + (i === j ? this.capacity[i] : 0)));
    const b = this.k.map(
      (row, i) =>
        this.capacity[i] * this.temps[i] -
        (stepS / 2) * row.reduce((s, v, j) => s + v * this.temps[j], 0) +
        stepS * this.source[i],
    );
    solveDense(a, b).forEach((t, i) => (this.temps[i] = t));
  }
}

function solveDense(a: number[][], b: number[]): number[] {
  const n = b.length;
  for (let c = 0; c < n; c++) {
    for (let r = c + 1; r < n; r++) {
      const f = a[r][c] / a[c][c];
      if (f === 0) continue;
      for (let k = c; k < n; k++) a[r][k] -= f * a[c][k];
      b[r] -= f * b[c];
    }
  }
  for (let r = n - 1; r >= 0; r--) {
    for (let k = r + 1; k < n; k++) b[r] -= a[r][k] * b[k];
    b[r] /= a[r][r];
  }
  return b;
}

/** A board of two layers with a part on it, uneven cells, uneven films, a corner cut off. */
function randomCase(seed: number): { grid: HeatGrid; films: Films } {
  const random = seededRandom(seed);
  const sizes = (n: number, from: number, to: number): Float64Array =>
    Float64Array.from({ length: n }, () => from + (to - from) * random());
  const grid = emptyGrid(sizes(5, 0.001, 0.004), sizes(4, 0.001, 0.004), sizes(3, 0.0002, 0.0006));
  const plane = 20;
  for (let i = 0; i < 60; i++) {
    const column = i % plane;
    const part = i >= 2 * plane;
    if (column === 19 || (part && ![6, 7, 11, 12].includes(column))) continue;
    grid.kxy[i] = part ? 0.8 : 20 + 40 * random();
    grid.kz[i] = part ? 0.8 : 0.4;
    grid.heatCapacity[i] = part ? 1.7e6 : 2.3e6;
  }
  for (let column = 0; column < plane; column++) grid.jointConductance[plane + column] = 2e4 + 1e5 * random();
  const films: Films = {
    topFilm: sizes(plane, 20, 300),
    topC: sizes(plane, 100, 380),
    bottomFilm: sizes(plane, 10, 30),
    bottomC: sizes(plane, 20, 120),
    sideFilm: 0,
    sideC: 0,
  };
  return { grid, films };
}

test.each([1, 2, 3, 4])('the fast solver follows its dense twin within 0.05 K over 40 s (case %p)', (seed) => {
  const { grid, films } = randomCase(seed);
  const fast = new HeatSolver(grid, 25);
  fast.setFilms(films);
  const slow = new DenseTwin(grid, films, 25);
  for (let second = 1; second <= 40; second++) {
    for (let k = 0; k < 20; k++) fast.step(0.05);
    for (let k = 0; k < 4; k++) slow.step(0.25);
    if (second % 10 !== 0) continue;
    slow.temps.forEach((t, i) => {
      if (grid.heatCapacity[i] > 0) expect(Math.abs(fast.temps[i] - t)).toBeLessThan(0.05);
    });
  }
});

test('empty cells stay where they are', () => {
  const { grid, films } = randomCase(7);
  const solver = new HeatSolver(grid, 25);
  solver.setFilms(films);
  for (let k = 0; k < 50; k++) solver.step(0.1);
  grid.heatCapacity.forEach((c, i) => {
    if (c === 0) expect(solver.temps[i]).toBe(25);
  });
});
