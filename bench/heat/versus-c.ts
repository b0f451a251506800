import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { HeatSolver, meshBoard, stepLengths } from '../../src/core/heat';
import { demoBoard } from '../../demo/files';
import { note, ratio, section } from '../print';

const BUILD = path.resolve('bench/build');
const ROUNDS = 9;

/** Wall time of a 180 s plan on about 15,000 cells against a C program of the same algorithm, in one run. */
export function benchHeatVersusC(): void {
  section('Heat solver: 180 s plan, TypeScript against C (-O3, double), same algorithm');
  const board = demoBoard('heronlog-4-c');
  const { grid } = meshBoard(board, 'U4', { fineMm: 0.4, growth: 1.16, coarsestMm: 2.2 });
  const plane = grid.nx * grid.ny;
  const films = {
    topFilm: new Float64Array(plane).fill(80),
    topC: new Float64Array(plane).fill(300),
    bottomFilm: new Float64Array(plane).fill(15),
    bottomC: new Float64Array(plane).fill(22),
    sideFilm: 15,
    sideC: 22,
  };
  const lengths = [...stepLengths(60), ...stepLengths(60), ...stepLengths(60)];
  note(`${grid.nx} × ${grid.ny} × ${grid.nz} = ${plane * grid.nz} cells, ${lengths.length} steps`);

  const runTs = (): { seconds: number; solver: HeatSolver } => {
    const solver = new HeatSolver(grid, 22);
    const start = performance.now();
    solver.setFilms(films);
    for (const s of lengths) solver.step(s);
    return { seconds: (performance.now() - start) / 1000, solver };
  };
  runTs(); // lets the compiler see the loops once, as in a worker that has run a plan before

  const c = compile();
  if (!c) return note('no C compiler here: the ratio is left out');
  const problem = path.join(BUILD, 'problem.bin');
  const answer = path.join(BUILD, 'answer.bin');
  writeFileSync(problem, runTs().solver.exportProblem(22, lengths));
  const ts: number[] = [];
  const cs: number[] = [];
  let solver: HeatSolver | undefined;
  for (let i = 0; i < ROUNDS; i++) {
    const run = runTs();
    solver = run.solver;
    ts.push(run.seconds);
    cs.push(Number(execFileSync(c, [problem, answer], { encoding: 'utf8' })));
  }
  const fromC = new Float64Array(new Uint8Array(readFileSync(answer)).buffer);
  const apart = solver!.temps.reduce((worst, t, i) => Math.max(worst, Math.abs(t - fromC[i])), 0);
  note(`largest difference of the two answers: ${apart.toExponential(1)} K`);
  ratio('TypeScript / C, median of paired runs', median(ts.map((t, i) => t / cs[i])), '≤ 6');
}

const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

function compile(): string | undefined {
  mkdirSync(BUILD, { recursive: true });
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
