import { STEFAN_BOLTZMANN } from './constants';
import { HeatSolver, type Films } from './solver';
import { typescriptKernel } from './kernel';
import { slab } from './tests/slab';

/**
 * A large thin plate under a narrow hot jet that is turned up, then off: what radiates goes with the fourth power. Held against a
 * radial finite-difference model written here on its own: rings, explicit steps, no shared code.
 */
const PLATE = { thicknessM: 0.0008, k: 8, heatCapacity: 2.3e6 };
const ROOM_C = 25;
const EMISSIVITY = 0.9;
const STILL = 6;
const jet = (rM: number): number => 300 * Math.exp(-((rM / 0.006) ** 2));
const STEPS = [
  { durationS: 20, airC: 280 },
  { durationS: 20, airC: 400 },
  { durationS: 15, airC: null },
] as const;

/** Temperatures at radius 0.5 mm, 5.5 mm and 15.5 mm at the end of every step. */
function rings(): number[][] {
  const [widthM, count, stepS] = [0.00025, 192, 0.0005];
  const temps = new Array<number>(count).fill(ROOM_C);
  const kelvin4 = (c: number): number => {
    const squared = (c + 273.15) * (c + 273.15);
    return squared * squared;
  };
  const films = temps.map((_, i) => jet((i + 0.5) * widthM));
  return STEPS.map(({ durationS, airC }) => {
    for (let n = 0; n < Math.round(durationS / stepS); n++) {
      const flow = temps.map((t, i) => {
        if (i + 1 === count) return 0;
        return ((2 * Math.PI * (i + 1) * widthM * PLATE.thicknessM * PLATE.k) / widthM) * (temps[i + 1] - t);
      });
      const was = [...temps];
      for (let i = 0; i < count; i++) {
        const area = Math.PI * widthM * widthM * ((i + 1) ** 2 - i ** 2);
        const film = airC === null ? STILL * (ROOM_C - was[i]) : films[i] * (airC - was[i]) + STILL * (ROOM_C - was[i]);
        const radiated = 2 * EMISSIVITY * STEFAN_BOLTZMANN * (kelvin4(was[i]) - kelvin4(ROOM_C));
        const gain = flow[i] - (i > 0 ? flow[i - 1] : 0) + area * (film + STILL * (ROOM_C - was[i]) - radiated);
        temps[i] = was[i] + (gain * stepS) / (PLATE.heatCapacity * area * PLATE.thicknessM);
      }
    }
    return [0.0005, 0.0055, 0.0155].map((r) => {
      const at = r / widthM - 0.5;
      const i = Math.floor(at);
      return temps[i] + (at - i) * (temps[i + 1] - temps[i]);
    });
  });
}

/** The same on a square plate of 96 mm, cells of 0.75 mm, read along the row beside the axis. */
function solved(kernel?: ReturnType<typeof typescriptKernel>): { temps: number[][]; energyError: number } {
  const [n, sizeM] = [128, 0.096];
  const cellM = sizeM / n;
  const grid = slab({ nx: n, ny: n }, { x: sizeM, y: sizeM }, [PLATE.thicknessM], {
    kxy: PLATE.k,
    kz: 1e3,
    heatCapacity: PLATE.heatCapacity,
  });
  const solver = new HeatSolver(grid, ROOM_C, kernel);
  const even = (value: number): Float64Array => new Float64Array(n * n).fill(value);
  const radiusOf = (i: number): number => Math.hypot((i % n) - (n - 1) / 2, Math.floor(i / n) - (n - 1) / 2) * cellM;
  const temps = STEPS.map(({ durationS, airC }) => {
    const films: Films = {
      topFilm: even(0).map((_, i) => (airC === null ? STILL : jet(radiusOf(i)) + STILL)),
      topC: even(ROOM_C).map((c, i) => {
        const share = jet(radiusOf(i)) / (jet(radiusOf(i)) + STILL);
        return airC === null ? c : c + share * (airC - c);
      }),
      bottomFilm: even(STILL),
      bottomC: even(ROOM_C),
      sideFilm: 0,
      sideC: ROOM_C,
      radiation: { top: even(EMISSIVITY), bottom: even(EMISSIVITY), side: EMISSIVITY, surroundingsC: ROOM_C },
    };
    solver.setFilms(films);
    for (let k = 0; k < durationS * 10; k++) solver.step(0.1);
    // Columns beside the axis lie half a cell off it in y: the row is read at the true radius of its cells.
    const row = Array.from({ length: n / 2 }, (_, x) => ({
      r: Math.hypot(x + 0.5, 0.5) * cellM,
      t: solver.temps[(n / 2) * n + n / 2 + x],
    }));
    return [0.0005, 0.0055, 0.0155].map((r) => {
      const i = Math.max(0, row.findIndex((cell) => cell.r > r) - 1);
      const [a, b] = [row[i], row[i + 1]];
      return a.t + ((r - a.r) / (b.r - a.r)) * (b.t - a.t);
    });
  });
  const { inJ, turnoverJ } = solver.heatBalance();
  return { temps, energyError: Math.abs(solver.storedJ(ROOM_C) - inJ) / turnoverJ };
}

const expected = rings();

test.each([
  ['webassembly', undefined],
  ['typescript', typescriptKernel()],
] as const)('radiation follows a radial finite-difference model within 0.3 K through a plan (%s)', (_, kernel) => {
  const { temps, energyError } = solved(kernel);
  temps.forEach((row, s) => row.forEach((t, i) => expect(Math.abs(t - expected[s][i])).toBeLessThan(0.3)));
  expect(Math.max(...expected[1])).toBeGreaterThan(200);
  expect(energyError).toBeLessThan(1e-3);
});

test('a plate that only radiates cools along the closed form of a lumped body', () => {
  // C dT/dt = −2εσ(T⁴ − Ts⁴) with Ts = 0 K: 1/T³ grows evenly.
  const grid = slab({ nx: 3, ny: 3 }, { x: 0.01, y: 0.01 }, [0.001], { kxy: 100, kz: 1e3, heatCapacity: 2e6 });
  const solver = new HeatSolver(grid, 300);
  const zero = new Float64Array(9);
  const shines = new Float64Array(9).fill(0.8);
  solver.setFilms({
    ...{ topFilm: zero, topC: zero, bottomFilm: zero, bottomC: zero, sideFilm: 0, sideC: 0 },
    radiation: { top: shines, bottom: shines, side: 0, surroundingsC: -273.15 },
  });
  for (let k = 0; k < 600; k++) solver.step(0.1);
  const start = 573.15;
  const rate = (3 * 2 * 0.8 * STEFAN_BOLTZMANN) / (2e6 * 0.001);
  expect(solver.temps[4]).toBeCloseTo((start ** -3 + rate * 60) ** (-1 / 3) - 273.15, 1);
});
