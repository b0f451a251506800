import { execFileSync } from 'node:child_process';
import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { seededRandom } from '../math';
import { emptyGrid, filledRuns } from './grid';
import { bestKernel } from './kernel';
import { startingPlan, type HeatPlan } from './plan';
import { simulateHeat } from './simulate';
import { HeatSolver } from './solver';
import { NOMINAL_STATION } from './station';
import { evenFilms, slab } from './tests/slab';

test('the kept bytes are what the source of the kernel compiles to', () => {
  expect(() =>
    execFileSync(process.execPath, ['scripts/build-kernel.mjs', '--check'], { stdio: 'pipe' }),
  ).not.toThrow();
});

test('where WebAssembly runs, it runs the loops; rows of one cell are left to TypeScript', () => {
  expect(bestKernel(40, 1e6).name).toBe('webassembly');
  expect(bestKernel(1, 1e6).name).toBe('typescript');
});

/** A plan with every setting drawn. */
function randomPlan(partRef: string, random: () => number): HeatPlan {
  const plan = startingPlan(partRef, 'SAC305', 4 + 2 * Math.floor(3 * random()));
  const steps = plan.steps.map((s) => ({
    ...s,
    durationS: 3 + Math.floor(12 * random()),
    airSetC: s.airSetC === null ? null : 150 + 300 * random(),
    flowLpm: 15 + 30 * random(),
    heightMm: 5 + 20 * random(),
  }));
  return { ...plan, steps, plateSetC: random() < 0.5 ? 120 : null, covers: random() < 0.5 ? ['U9'] : [] };
}

test.each([1, 2, 3, 4, 5, 6])('both kernels agree within 0.01 K on a random board and plan (draw %p)', (seed) => {
  const random = seededRandom(seed);
  const board = demoBoard(DEMO_BOARDS[seed % 2]);
  const thicker = { ...board, thicknessMm: 0.6 + random() };
  const plan = randomPlan(board.ports[0].controller, random);
  const mesh = { fineMm: 0.5 + 0.7 * random(), growth: 1.3 };
  const [fast, plain] = [{}, { kernel: 'typescript' as const }].map((kernel) =>
    simulateHeat(thicker, NOMINAL_STATION, plan, { ...mesh, ...kernel, frames: false })!,
  );
  fast.parts.forEach((curve, k) => {
    curve.jointMinC.forEach((t, i) => expect(Math.abs(t - plain.parts[k].jointMinC[i])).toBeLessThan(0.01));
    curve.bodyMaxC.forEach((t, i) => expect(Math.abs(t - plain.parts[k].bodyMaxC[i])).toBeLessThan(0.01));
  });
});

test('more step lengths than are kept: the factors are made anew, the answer is the same', () => {
  const grid = slab({ nx: 9, ny: 8 }, { x: 0.02, y: 0.02 }, [0.0004, 0.0004], {
    kxy: 30,
    kz: 0.4,
    heatCapacity: 2.3e6,
  });
  const films = evenFilms(grid, { film: 80, airC: 300 }, { film: 12, airC: 25 });
  const lengths = [0.1, 0.2, 0.3, 0.4, 0.5, 0.1, 0.2];
  const one = new HeatSolver(grid, 25);
  one.setFilms(films);
  lengths.forEach((s) => one.step(s));
  // A solver for each step has nothing kept.
  let temps: Float64Array = new Float64Array(one.temps.length).fill(25);
  for (const s of lengths) {
    const fresh = new HeatSolver(grid, 25);
    fresh.setFilms(films);
    fresh.temps.set(temps);
    fresh.step(s);
    temps = fresh.temps;
  }
  one.temps.forEach((t, i) => expect(t).toBeCloseTo(temps[i], 9));
});

test('runs of filled cells stay within a layer and leave the air out', () => {
  const grid = emptyGrid(new Float64Array(4), new Float64Array(2), new Float64Array(3));
  [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 11, 12, 17].forEach((i) => (grid.heatCapacity[i] = 1));
  const { bounds, layers } = filledRuns(grid);
  expect([...bounds]).toEqual([0, 8, 8, 10, 11, 13, 17, 18]);
  expect([...layers]).toEqual([0, 2, 6, 8]);
});
