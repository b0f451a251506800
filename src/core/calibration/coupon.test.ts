import { HeatSolver, airOver, emptyGrid, outletSteadyC, stepLengths, NOMINAL_STATION, type Films } from '../heat';
import { DEFAULT_BLOW, blowCoupon, reaches, thresholdOf, type Unknowns } from '.';

const TRUTH: Unknowns = {
  outletEfficiency: 0.85,
  multiplier: 0.8,
  spreadDiameters: 3.5,
  outletLagS: 6,
  lossShare: 1,
  flowExponent: 0,
  heatShare: 1,
  probeShare: 1,
};
const RUN = { ...DEFAULT_BLOW, durationS: 60 };

/** The whole coupon in even cells of 1 mm, written out from its drawing: the slow twin of the computed quarter. */
function wholeCoupon(): { slug: number; near: number } {
  const n = 40;
  const plane = n * n;
  const cells = new Float64Array(n).fill(0.001);
  const grid = emptyGrid(cells, cells, Float64Array.from([0.00064, 0.00064, 0.00032, 0.0015]));
  const centre = (i: number): number => i + 0.5 - n / 2;
  for (let i = 0; i < 4 * plane; i++) {
    const [x, y] = [centre(i % n), centre(Math.floor(i / n) % n)];
    const slug = i >= 3 * plane;
    if (slug && (Math.abs(x) > 4 || Math.abs(y) > 4)) continue;
    grid.kxy[i] = slug ? 385 : 0.3 + (385 * 0.07 * 0.5) / 1.6;
    grid.kz[i] = slug ? 385 : 0.4;
    grid.heatCapacity[i] = slug ? 3.45e6 : 2.1e6;
    if (i >= 2 * plane) grid.jointConductance[i] = 5e4;
  }
  const station = { ...NOMINAL_STATION, outletEfficiency: 0.85, multiplier: 0.8, outletLagS: 6 };
  const air = airOver(station, RUN, { airSetC: RUN.setC, flowLpm: RUN.flowLpm, heightMm: RUN.heightMm });
  const films: Films = {
    topFilm: new Float64Array(plane),
    topC: new Float64Array(plane),
    bottomFilm: new Float64Array(plane).fill(4.8),
    bottomC: new Float64Array(plane).fill(22),
    sideFilm: 0,
    sideC: 22,
    radiation: { top: new Float64Array(plane), bottom: new Float64Array(plane).fill(0.9), side: 0, surroundingsC: 22 },
  };
  const share = new Float64Array(plane);
  for (let i = 0; i < plane; i++) {
    const { h, share: entrained } = air(Math.hypot(centre(i % n), centre(Math.floor(i / n))));
    const convection = Math.cbrt(h ** 3 + 6 ** 3);
    films.topFilm[i] = convection;
    share[i] = entrained;
    const slug = Math.abs(centre(i % n)) <= 4 && Math.abs(centre(Math.floor(i / n))) <= 4;
    films.radiation!.top[i] = slug ? 0.6 : 0.9;
  }
  const solver = new HeatSolver(grid, 22);
  const goal = outletSteadyC(station, RUN.setC, RUN.flowLpm, 22);
  let timeS = 0;
  for (const stepS of stepLengths(RUN.durationS)) {
    const outlet = goal + (22 - goal) * Math.exp(-(timeS + stepS / 2) / 6);
    films.topC.forEach((_, i) => (films.topC[i] = 22 + share[i] * (outlet - 22)));
    solver.setFilms(films);
    solver.step(stepS);
    timeS += stepS;
  }
  const middle = (n / 2) * n + n / 2;
  // 8 mm out lies on a cell edge of the even mesh: the mean of both sides.
  const near = (solver.temps[2 * plane + middle + 7] + solver.temps[2 * plane + middle + 8]) / 2;
  return { slug: solver.temps[3 * plane + middle], near };
}

test('the quarter of the coupon follows the whole, written out from its drawing, within 1 % of the rise', () => {
  const quarter = blowCoupon(NOMINAL_STATION, TRUTH, RUN);
  const whole = wholeCoupon();
  expect(Math.abs(quarter.slug[60] - whole.slug) / (whole.slug - 22)).toBeLessThan(0.01);
  expect(Math.abs(quarter.near[60] - whole.near) / (whole.near - 22)).toBeLessThan(0.05);
});

test('near the slug is hotter than far from it, and all of it cooler than the slug', () => {
  const { slug, near, far } = blowCoupon(NOMINAL_STATION, TRUTH, RUN);
  expect(slug[60]).toBeGreaterThan(near[60]);
  expect(near[60]).toBeGreaterThan(far[60]);
  expect(far[60]).toBeGreaterThan(22);
});

test.each([
  ['a weaker jet', { multiplier: 0.5 }],
  ['a cooler outlet', { outletEfficiency: 0.7 }],
  ['a slower outlet', { outletLagS: 12 }],
  ['a heavier coupon', { heatShare: 1.1 }],
])('%s heats later', (_, change) => {
  const at = (unknowns: Unknowns): number => blowCoupon(NOMINAL_STATION, unknowns, RUN).slug[20];
  expect(at({ ...TRUTH, ...change })).toBeLessThan(at(TRUTH) - 1);
});

test('a threshold is the lowest five that melts, the five below does not', () => {
  for (const alloyC of [138, 183]) {
    const setC = thresholdOf(NOMINAL_STATION, TRUTH, DEFAULT_BLOW, alloyC);
    const at = (c: number): number =>
      blowCoupon(NOMINAL_STATION, TRUTH, { ...DEFAULT_BLOW, setC: c, durationS: 120 }).slug[120];
    expect(setC % 5).toBe(0);
    expect(at(setC)).toBeGreaterThanOrEqual(alloyC);
    expect(at(setC - 5)).toBeLessThan(alloyC);
  }
});

test('the time to a level lies between the seconds on either side, or there is none', () => {
  const curve = Float64Array.from([20, 30, 50, 60]);
  expect(reaches(curve, 40)).toBeCloseTo(1.5, 9);
  expect([reaches(curve, 20), reaches(curve, 61)]).toEqual([0, null]);
});
