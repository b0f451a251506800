import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import {
  HeatSolver,
  meshBoard,
  stepLengths,
  typescriptKernel,
  webassemblyKernel,
  type Films,
  type HeatGrid,
  type Kernel,
} from '../../src/core/heat';
import { demoBoard } from '../../demo/files';
import { note, ratio, section } from '../print';

const BUILD = path.resolve('bench/build');
const PROBLEM = path.join(BUILD, 'problem.bin');
const ANSWER = path.join(BUILD, 'answer.bin');
const ROUNDS = 9;
const LENGTHS = [...stepLengths(60), ...stepLengths(60), ...stepLengths(60)];

/** Finest cell, growth and coarsest cell, mm, that give about so many cells. */
const MESHES = [
  { thousands: 6, fineMm: 0.55, growth: 1.3, coarsestMm: 3 },
  { thousands: 15, fineMm: 0.4, growth: 1.16, coarsestMm: 2.2 },
  { thousands: 57, fineMm: 0.25, growth: 1.06, coarsestMm: 0.75 },
];

/** Wall time of a 180 s plan against a C program of the same algorithm and a sparse direct solve, in one run. */
function benchHeatSolver(): void {
  section('Heat solver: 180 s plan, both kernels against C (-O3, double) and a sparse direct Crank–Nicolson');
  mkdirSync(BUILD, { recursive: true });
  const c = compile();
  if (!c) note('no C compiler here: its ratios are left out');
  const perCell = MESHES.map(({ thousands, ...mesh }) => {
    const { grid } = meshBoard(demoBoard('heronlog-4-c'), 'U4', mesh);
    const cells = grid.nx * grid.ny * grid.nz;
    note(`${grid.nx} × ${grid.ny} × ${grid.nz} = ${cells} cells, ${LENGTHS.length} steps`);
    const films = evenFilms(grid);
    const ts = (): Run => run(grid, films, typescriptKernel());
    const wasm = (): Run => run(grid, films, webassemblyKernel(HeatSolver.bytesFor(grid))!);
    [ts, wasm].forEach((warm) => warm()); // lets the compiler see the loops once, as in a worker that has run a plan before
    writeFileSync(PROBLEM, ts().solver.exportProblem(22, LENGTHS));
    const times = Array.from({ length: ROUNDS }, () => ({
      ts: ts().seconds,
      wasm: wasm().seconds,
      c: c ? Number(execFileSync(c, [PROBLEM, ANSWER], { encoding: 'utf8' })) : NaN,
    }));
    note(`largest difference, WebAssembly from TypeScript: ${apart(wasm(), ts()).toExponential(1)} K`);
    if (c) {
      note(`largest difference, TypeScript from C: ${apart(ts(), answer()).toExponential(1)} K`);
      ratio('TypeScript / C', median(times.map((t) => t.ts / t.c)), 'at most 3.5 at 15 thousand cells');
      ratio('WebAssembly / C', median(times.map((t) => t.wasm / t.c)), 'at most 1.2 from 12 thousand cells');
    }
    if (thousands === 15) againstDirect(median(times.map((t) => t.ts)), ts());
    return { ts: median(times.map((t) => t.ts)) / cells, wasm: median(times.map((t) => t.wasm)) / cells };
  });
  const [small, , large] = perCell;
  ratio('time per cell, 57 / 6 thousand cells, TypeScript', large.ts / small.ts, 'at most 1.3');
  ratio('time per cell, 57 / 6 thousand cells, WebAssembly', large.wasm / small.wasm, 'at most 1.3');
}

interface Run {
  readonly seconds: number;
  readonly solver: HeatSolver;
}

function run(grid: HeatGrid, films: Films, kernel: Kernel): Run {
  const solver = new HeatSolver(grid, 22, kernel);
  const start = performance.now();
  solver.setFilms(films);
  for (const s of LENGTHS) solver.step(s);
  return { seconds: (performance.now() - start) / 1000, solver };
}

function againstDirect(seconds: number, { solver }: Run): void {
  try {
    const took = Number(
      execFileSync('python3', [path.resolve('bench/heat/crank_nicolson.py'), PROBLEM, ANSWER], { encoding: 'utf8' }),
    );
    note(`largest difference from the direct solve: ${apart({ solver }, answer()).toExponential(1)} K`);
    ratio('sparse direct / TypeScript', took / seconds, 'at least 6');
  } catch {
    note('no Python with scipy here: its ratio is left out');
  }
}

const evenFilms = ({ nx, ny }: HeatGrid): Films => ({
  topFilm: new Float64Array(nx * ny).fill(80),
  topC: new Float64Array(nx * ny).fill(300),
  bottomFilm: new Float64Array(nx * ny).fill(15),
  bottomC: new Float64Array(nx * ny).fill(22),
  sideFilm: 15,
  sideC: 22,
});

type Answer = { readonly solver: Pick<HeatSolver, 'temps'> };
const answer = (): Answer => ({ solver: { temps: new Float64Array(new Uint8Array(readFileSync(ANSWER)).buffer) } });
const apart = (a: Answer, b: Answer): number =>
  a.solver.temps.reduce((worst, t, i) => Math.max(worst, Math.abs(t - b.solver.temps[i])), 0);
const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

function compile(): string | undefined {
  const out = path.join(BUILD, 'adi');
  for (const cc of ['cc', 'gcc', 'clang']) {
    try {
      execFileSync(cc, ['-O3', '-o', out, path.resolve('bench/heat/adi.c')], { stdio: 'ignore' });
      return out;
    } catch {
      continue;
    }
  }
  return undefined;
}

benchHeatSolver();
