import { AIR_PRANDTL, airConductivity } from './air';
import { jetFilm, reynolds, type Jet } from './jet';
import { startingPlan } from './plan';
import { NOMINAL_STATION } from './station';
import { SHAPE_SHARE, filmDoubt, outsideValidity } from './validity';

const plan = startingPlan('U4', 'SAC305', 6);
const at = (change: Partial<(typeof plan.steps)[number]>) => ({
  ...plan,
  steps: plan.steps.map((s) => (s.airSetC === null ? s : { ...s, heightMm: 15, flowLpm: 30, ...change })),
});

test('a usual nozzle lies inside what was measured; only the shape under it is in doubt', () => {
  expect(outsideValidity(NOMINAL_STATION, at({}))).toEqual([]);
  expect(filmDoubt(NOMINAL_STATION, at({}))).toBe(SHAPE_SHARE);
});

test.each([
  ['too near', { heightMm: 6 }, /Nozzle at 1\.0 diameters: .* 2 to 12/],
  ['too far', { heightMm: 80 }, /Nozzle at 13\.3 diameters/],
  ['too little air', { flowLpm: 8 }, /Reynolds number 1\d\d\d: the film is measured from 2000 on/],
])('%s is said with its number, and adds doubt', (_, change, words) => {
  const [outside, ...more] = outsideValidity(NOMINAL_STATION, at(change));
  expect(more).toEqual([]);
  expect(outside.words).toMatch(words);
  expect(filmDoubt(NOMINAL_STATION, at(change))).toBeGreaterThan(SHAPE_SHARE + 0.001);
});

test('further out is more in doubt, and no air at all says nothing', () => {
  const doubt = (heightMm: number): number => filmDoubt(NOMINAL_STATION, at({ heightMm }));
  expect(doubt(3)).toBeGreaterThan(doubt(6));
  expect(outsideValidity(NOMINAL_STATION, { ...plan, steps: plan.steps.filter((s) => s.airSetC === null) })).toEqual(
    [],
  );
});

test('on the axis the film lies between stagnation-point theory for an even jet and for one from a long pipe', () => {
  // Nu = 0.763 Re^½ Pr^0.4 (β·D/V)^½ (Sibulkin 1952); velocity gradient β·D/V about 1 for an even jet and 4.6 for a developed one
  // (Liu, Lienhard & Lombara 1991; both from memory).
  for (const heightMm of [12, 24, 36]) {
    const jet: Jet = {
      ...{ nozzleMm: 6, heightMm, flowLpm: 30, outletC: 300 },
      ...{ ambientC: 22, multiplier: 1, spreadDiameters: 3.5 },
    };
    const nusselt = (jetFilm(jet, 0) * 0.006) / airConductivity(225);
    const theory = (gradient: number): number =>
      0.763 * Math.sqrt(reynolds(jet)) * AIR_PRANDTL ** 0.4 * Math.sqrt(gradient);
    expect(nusselt).toBeLessThan(theory(4.6));
    if (heightMm <= 12) expect(nusselt).toBeGreaterThan(theory(1));
  }
});
