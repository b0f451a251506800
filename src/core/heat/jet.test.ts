import { adiabaticWallC, jetFilm, localG, martinF, reynolds, type Jet } from './jet';

/** The jet of the check values: D 6 mm, H 12 mm, Q 30 l/min, outlet 300 °C, room 22 °C, m 1. */
const JET: Jet = {
  nozzleMm: 6,
  heightMm: 12,
  flowLpm: 30,
  outletC: 300,
  ambientC: 22,
  multiplier: 1,
  spreadDiameters: 3.5,
};

/** To five significant digits. */
const expectClose = (got: number, wanted: number): void => expect(Number(got.toPrecision(5))).toBe(wanted);

test('Martin’s Reynolds function (Martin 1977, in Incropera & DeWitt)', () => {
  expectClose(martinF(2000), 103.03);
  expectClose(martinF(5000), 175.57);
});

test.each([
  [2, 0, 0.46118],
  [2, 1, 0.33513],
  [2, 5, 0.10132],
  [6, 0, 0.3105],
  [6, 1, 0.25445],
  [6, 5, 0.1],
])('local shape at H/D %p, r/D %p (derived from Martin’s area mean)', (heightOverD, x, wanted) => {
  expect(localG(x, heightOverD)).toBeCloseTo(wanted, 5);
});

/** G of Martin’s correlation, for the mean up to x. */
const martinG = (x: number, heightOverD: number): number =>
  ((1 / x) * (1 - 1.1 / x)) / (1 + (0.1 * (heightOverD - 6)) / x);

test.each([2, 4, 6, 9, 12])(
  'the area mean of the local shape is Martin’s G at H/D %p (numerical integration)',
  (heightOverD) => {
    for (const x of [2.5, 4, 7.5]) {
      const n = 4000;
      let sum = 0;
      for (let i = 0; i < n; i++) {
        const r = ((i + 0.5) / n) * x;
        sum += localG(r, heightOverD) * 2 * r * (x / n);
      }
      expect(sum / (x * x)).toBeCloseTo(martinG(x, heightOverD), 4);
    }
  },
);

test('one jet, worked through: Reynolds number, coefficients and wall temperatures', () => {
  expectClose(reynolds(JET), 4796.1);
  expectClose(jetFilm(JET, 0), 456.59);
  expectClose(jetFilm(JET, 6), 331.8);
  expectClose(jetFilm(JET, 15), 210.58);
  expectClose(adiabaticWallC(JET, 0), 298.25);
  expectClose(adiabaticWallC(JET, 12), 261.85);
});

test('more flow and less height never cool the middle', () => {
  expect(jetFilm({ ...JET, flowLpm: 40 }, 0)).toBeGreaterThan(jetFilm(JET, 0));
  expect(adiabaticWallC({ ...JET, heightMm: 24 }, 0)).toBeLessThan(adiabaticWallC(JET, 0));
});
