import { HeatSolver } from './solver';
import { emptyGrid, type HeatGrid } from './grid';
import { typescriptKernel } from './kernel';
import { evenFilms, slab } from './tests/slab';

function run(solver: HeatSolver, seconds: number, stepS: number): void {
  for (let i = 0; i < Math.round(seconds / stepS); i++) solver.step(stepS);
}

test('a thin slab follows the lumped-body closed form (h 150 to 300 °C above, 12 to 25 °C below)', () => {
  // 0.8 mm, ρc 2.3e6, start 25 °C; a highly conducting slab stands for the lumped body.
  const grid = slab({ nx: 3, ny: 3 }, { x: 0.01, y: 0.01 }, [0.0004, 0.0004], {
    kxy: 5000,
    kz: 5000,
    heatCapacity: 2.3e6,
  });
  const solver = new HeatSolver(grid, 25);
  solver.setFilms(evenFilms(grid, { film: 150, airC: 300 }, { film: 12, airC: 25 }));
  const wanted = [
    [10, 174.06],
    [30, 261.48],
    [60, 278.34],
  ];
  let at = 0;
  for (const [seconds, tempC] of wanted) {
    run(solver, seconds - at, 0.05);
    at = seconds;
    expect(Math.abs(solver.temps[0] - tempC) / tempC).toBeLessThan(0.001);
  }
});

test('a thick block follows the semi-infinite solid with surface convection (Carslaw & Jaeger; Incropera case 3)', () => {
  // k 0.8, ρc 1.7e6, h 200 to 300 °C, start 25 °C; 20 mm deep, fine towards the surface.
  const layersM = gradedLayers(0.02, 2e-5, 1.06);
  const grid = slab({ nx: 1, ny: 1 }, { x: 0.01, y: 0.01 }, layersM, { kxy: 0.8, kz: 0.8, heatCapacity: 1.7e6 });
  const solver = new HeatSolver(grid, 25);
  solver.setFilms(evenFilms(grid, { film: 200, airC: 300 }, { film: 0, airC: 25 }));
  const wanted = [
    [1, 71.064, 34.441],
    [5, 112.81, 73.182],
    [20, 162.29, 130.03],
  ];
  let at = 0;
  for (const [seconds, surfaceC, deepC] of wanted) {
    run(solver, seconds - at, 0.01);
    at = seconds;
    expect(Math.abs(surfaceOf(solver, 200, 300) - surfaceC) / surfaceC).toBeLessThan(0.001);
    expect(Math.abs(atDepth(solver, layersM, 0.001) - deepC) / deepC).toBeLessThan(0.001);
  }
});

/** Layers from the bottom up, the last one the thinnest. */
function gradedLayers(depthM: number, finestM: number, growth: number): number[] {
  const sizes: number[] = [];
  for (let size = finestM, sum = 0; sum < depthM; size *= growth) {
    sizes.push(size);
    sum += size;
  }
  return sizes.reverse();
}

/** Surface temperature from the flux balance over the top half cell. */
function surfaceOf(solver: HeatSolver, film: number, airC: number): number {
  const top = solver.temps.length - 1;
  const half = (2 * solver.grid.kz[top]) / solver.grid.dz[top];
  return (film * airC + half * solver.temps[top]) / (film + half);
}

function atDepth(solver: HeatSolver, layersM: readonly number[], depthM: number): number {
  let depth = 0;
  for (let z = layersM.length - 1; z > 0; z--) {
    const here = depth + layersM[z] / 2;
    const below = depth + layersM[z] + layersM[z - 1] / 2;
    if (below >= depthM)
      return solver.temps[z] + ((depthM - here) / (below - here)) * (solver.temps[z - 1] - solver.temps[z]);
    depth += layersM[z];
  }
  return NaN;
}

describe('against a general finite-element program', () => {
  // CalculiX 2.20 (Debian), mesh and step extrapolated. Plate 40×40×0.8 mm, k 55/55/0.4, ρc 2.3e6; block 10×10×0.8 mm
  // on its centre, k 0.8, ρc 1.7e6; h 150 to 350 °C on the block top, 12 to 25 °C elsewhere; start 25 °C.
  // Columns: seconds, block underside centre, 8 mm from centre top and bottom, 15 mm top and bottom.
  const CALCULIX = [
    [10, 68.62, 42.05, 38.21, 34.32, 34.04],
    [30, 85.88, 60.44, 56.78, 53.01, 52.73],
    [60, 102.83, 78.64, 75.16, 71.57, 71.31],
    [120, 119.31, 96.34, 93.04, 89.62, 89.38],
  ];

  test.each([
    { name: 'three graded board layers', board: [0.4, 0.4, 0.2], block: [1], toleranceC: 1.5 },
    { name: 'four board layers and two of the block', board: [0.4, 0.3, 0.2, 0.1], block: [0.5, 0.5], toleranceC: 0.9 },
  ])('$name stay within $toleranceC K', ({ board, block, toleranceC }) => {
    const { grid, n } = plateWithBlock(board, block);
    const solver = new HeatSolver(grid, 25);
    const plane = n * n;
    const isBlock = (i: number): boolean => grid.heatCapacity[(board.length + block.length - 1) * plane + i] > 0;
    const films = { ...evenFilms(grid, { film: 12, airC: 25 }, { film: 12, airC: 25 }), sideFilm: 12, sideC: 25 };
    for (let i = 0; i < plane; i++) {
      if (!isBlock(i)) continue;
      films.topFilm[i] = 150;
      films.topC[i] = 350;
    }
    solver.setFilms(films);
    const middle = (n - 1) / 2;
    const row = middle * n + middle;
    // Both distances lie on a cell edge: the mean of the cells on either side.
    const across = (layer: number, mm: number): number => {
      const i = layer * plane + row + BLOCK_HALF_CELLS + Math.round((mm - 5) / 0.5);
      return (solver.temps[i] + solver.temps[i + 1]) / 2;
    };
    let at = 0;
    for (const [seconds, under, top8, bottom8, top15, bottom15] of CALCULIX) {
      run(solver, seconds - at, 0.1);
      at = seconds;
      const top = board.length - 1;
      const got = [solver.jointC(top * plane + row), across(top, 8), across(0, 8), across(top, 15), across(0, 15)];
      [under, top8, bottom8, top15, bottom15].forEach((wanted, i) =>
        expect(Math.abs(got[i] - wanted)).toBeLessThan(toleranceC),
      );
    }
  });

  const BLOCK_HALF_CELLS = 10;

  /** 21 cells across the block, so that one lies on the centre, and 0.5 mm outside it. */
  function plateWithBlock(
    boardShares: readonly number[],
    blockShares: readonly number[],
  ): { grid: HeatGrid; n: number } {
    const n = 81;
    const middle = (n - 1) / 2;
    const inBlock = (i: number): boolean => Math.abs(i - middle) <= BLOCK_HALF_CELLS;
    const cells = Float64Array.from({ length: n }, (_, i) => (inBlock(i) ? 0.01 / 21 : 0.0005));
    const layers = [...boardShares, ...blockShares].map((share) => share * 0.0008);
    const grid = emptyGrid(cells, cells, Float64Array.from(layers));
    for (let z = 0, i = 0; z < layers.length; z++) {
      for (let y = 0; y < n; y++) {
        for (let x = 0; x < n; x++, i++) {
          const board = z < boardShares.length;
          if (!board && !(inBlock(x) && inBlock(y))) continue;
          grid.kxy[i] = board ? 55 : 0.8;
          grid.kz[i] = board ? 0.4 : 0.8;
          grid.heatCapacity[i] = board ? 2.3e6 : 1.7e6;
        }
      }
    }
    return { grid, n };
  }
});

test('a radial fin settles on the closed form (modified Bessel functions; k 55, 0.8 mm, total h 24, 2e4 W/m² in a disc of 5 mm)', () => {
  // The source is a flux: air so much hotter over the disc as gives it through the film. Fine cells in and round the disc.
  const fine = 0.0004;
  const outward: number[] = [];
  for (let sum = 0, size = fine; sum < 0.16; sum += size) outward.push((size = sum < 0.012 ? fine : size * 1.08));
  const cells = Float64Array.from([...outward.slice(1).reverse(), fine, ...outward.slice(1)]);
  const n = cells.length;
  const grid = slab({ nx: n, ny: n }, { x: 1, y: 1 }, [0.0008], { kxy: 55, kz: 1e6, heatCapacity: 2.3e4 });
  grid.dx.set(cells);
  grid.dy.set(cells);
  const centres = cells.map((size, i) => cells.slice(0, i).reduce((a, b) => a + b, 0) + size / 2);
  const middle = centres[(n - 1) / 2];
  const films = evenFilms(grid, { film: 12, airC: 0 }, { film: 12, airC: 0 });
  for (let y = 0, i = 0; y < n; y++) {
    for (let x = 0; x < n; x++, i++) {
      const share = discShare(
        (centres[x] - middle) / 0.005,
        (centres[y] - middle) / 0.005,
        cells[x] / 0.005,
        cells[y] / 0.005,
      );
      films.topC[i] = (2e4 * share) / 12;
    }
  }
  const solver = new HeatSolver(grid, 0);
  solver.setFilms(films);
  for (let i = 0; i < 600; i++) solver.step(0.02);
  const row = ((n - 1) / 2) * n;
  const rise = (mm: number): number => {
    const at = middle + mm / 1000;
    const i = centres.findIndex((c) => c > at) - 1;
    const share = (at - centres[i]) / (centres[i + 1] - centres[i]);
    return solver.temps[row + i] * (1 - share) + solver.temps[row + i + 1] * share;
  };
  const wanted = [
    [0, 15.735],
    [5, 12.946],
    [10, 9.1376],
    [20, 5.5852],
    [40, 2.6349],
  ];
  for (const [mm, riseK] of wanted) expect(Math.abs(rise(mm) - riseK)).toBeLessThan(0.1);
});

/** Share of a cell that lies in the unit disc, by 20 × 20 samples. */
function discShare(cx: number, cy: number, width: number, height: number): number {
  let inside = 0;
  for (let i = 0; i < 20; i++)
    for (let j = 0; j < 20; j++)
      if (Math.hypot(cx + ((i + 0.5) / 20 - 0.5) * width, cy + ((j + 0.5) / 20 - 0.5) * height) <= 1) inside++;
  return inside / 400;
}

test('heat is conserved: what comes in is stored', () => {
  const grid = slab({ nx: 12, ny: 9 }, { x: 0.03, y: 0.02 }, [0.0003, 0.0003, 0.0002], {
    kxy: 40,
    kz: 0.4,
    heatCapacity: 2.2e6,
  });
  const solver = new HeatSolver(grid, 20);
  const films = evenFilms(grid, { film: 90, airC: 280 }, { film: 14, airC: 20 });
  films.topFilm[17] = 400;
  solver.setFilms(films);
  let inJ = 0;
  for (let i = 0; i < 200; i++) {
    const before = solver.inflowW();
    solver.step(0.1);
    inJ += 0.05 * (before + solver.inflowW());
  }
  expect(Math.abs(solver.storedJ(20) - inJ) / inJ).toBeLessThan(0.001);
});

test('halving the step quarters the error: the scheme is of second order', () => {
  const at = (stepS: number): number => {
    const grid = slab({ nx: 7, ny: 7 }, { x: 0.02, y: 0.02 }, [0.0004, 0.0004], {
      kxy: 30,
      kz: 0.4,
      heatCapacity: 2.3e6,
    });
    const films = evenFilms(grid, { film: 60, airC: 25 }, { film: 10, airC: 25 });
    films.topC[24] = 400;
    const solver = new HeatSolver(grid, 25);
    solver.setFilms(films);
    run(solver, 8, stepS);
    return solver.temps[7 * 7 + 24];
  };
  const exact = at(0.0125);
  const ratio = (at(0.4) - exact) / (at(0.2) - exact);
  expect(ratio).toBeGreaterThan(3.3);
  expect(ratio).toBeLessThan(4.8);
});

test('halving the cells quarters the error: the mesh is of second order', () => {
  // Smooth heating of a plate by cos² over its width; the temperature in the middle, between the four cells there.
  const at = (n: number): number => {
    const grid = slab({ nx: n, ny: n }, { x: 0.04, y: 0.04 }, [0.0008], { kxy: 30, kz: 30, heatCapacity: 2.3e6 });
    const films = evenFilms(grid, { film: 60, airC: 25 }, { film: 10, airC: 25 });
    const heat = (i: number): number => Math.cos(Math.PI * ((i + 0.5) / n - 0.5)) ** 2;
    films.topC.forEach((_, i) => (films.topC[i] = 25 + 300 * heat(i % n) * heat(Math.floor(i / n))));
    const solver = new HeatSolver(grid, 25);
    solver.setFilms(films);
    run(solver, 10, 0.05);
    // Midpoint of the plate from the four cells round it, corrected by their curvature: of higher order than the mesh.
    const row = (y: number): number => {
      const t = [-2, -1, 0, 1].map((x) => solver.temps[y * n + n / 2 + x]);
      return (9 * (t[1] + t[2]) - t[0] - t[3]) / 16;
    };
    const r = [-2, -1, 0, 1].map((y) => row(n / 2 + y));
    return (9 * (r[1] + r[2]) - r[0] - r[3]) / 16;
  };
  const exact = at(128);
  const ratio = (at(8) - exact) / (at(16) - exact);
  expect(ratio).toBeGreaterThan(3.3);
  expect(ratio).toBeLessThan(4.8);
});

describe('air that changes while the films stay', () => {
  const grid = slab({ nx: 7, ny: 5 }, { x: 0.02, y: 0.015 }, [0.0003, 0.0003, 0.0002], {
    kxy: 40,
    kz: 0.4,
    heatCapacity: 2.2e6,
  });
  const plane = 35;
  const topShare = Float64Array.from({ length: plane }, (_, i) => 0.3 + 0.02 * i);
  const moving = { ambientC: 22, topShare };
  const still = () => evenFilms(grid, { film: 120, airC: 22 }, { film: 30, airC: 22 });

  test('is the same as setting all films anew', () => {
    const [quick, plain] = [new HeatSolver(grid, 22), new HeatSolver(grid, 22)];
    quick.setFilms(still());
    for (const [riseK, bottomC] of [
      [100, 40],
      [180, 40],
      [180, 90],
      [20, 110],
    ]) {
      const films = still();
      films.topC.set(topShare.map((s) => 22 + s * riseK));
      films.bottomC.fill(bottomC);
      plain.setFilms(films);
      quick.setAir(moving, riseK, bottomC);
      expect(quick.suppliedW()).toBeCloseTo(plain.suppliedW(), 9);
      for (const solver of [quick, plain]) run(solver, 2, 0.1);
      for (let i = 0; i < quick.temps.length; i++) expect(quick.temps[i]).toBeCloseTo(plain.temps[i], 9);
    }
  });

  test('is taken anew after other films were set', () => {
    const solver = new HeatSolver(grid, 22);
    solver.setFilms(still());
    solver.setAir(moving, 100, 40);
    const stronger = still();
    stronger.topFilm.fill(240);
    solver.setFilms(stronger);
    solver.setAir(moving, 100, 40);
    const fresh = new HeatSolver(grid, 22);
    fresh.setFilms(stronger);
    fresh.setAir(moving, 100, 40);
    expect(solver.suppliedW()).toBeCloseTo(fresh.suppliedW(), 9);
  });

  test.each([['typescript', typescriptKernel()] as const, ['webassembly', undefined] as const])(
    'a step of the %s kernel tells what the faces gave back at its start',
    (_, kernel) => {
      const solver = new HeatSolver(grid, 80, kernel);
      solver.setFilms(still());
      for (let i = 0; i < 5; i++) {
        const lostW = solver.lostW();
        expect(solver.step(0.2)).toBeCloseTo(lostW, 9);
      }
    },
  );
});
