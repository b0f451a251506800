import { NOMINAL_STATION } from '../heat';
import { seededRandom } from '../math';
import { DEFAULT_BLOW, fitStation, loggedBy, type Trial } from '.';
import { blowCoupon } from './coupon';

const TRUTH = {
  outletEfficiency: 0.84,
  multiplier: 0.8,
  spreadDiameters: 3.4,
  outletLagS: 5,
  lossShare: 1,
  flowExponent: 0,
};
const DURATION_S = 60;
const curves = blowCoupon(
  NOMINAL_STATION,
  { ...TRUTH, heatShare: 1, probeShare: 1 },
  { ...DEFAULT_BLOW, durationS: DURATION_S },
);
const random = seededRandom(8);
const trial: Extract<Trial, { kind: 'log' }> = {
  kind: 'log',
  ...DEFAULT_BLOW,
  probes: (['slug', 'far'] as const).map((place) => ({
    place,
    readC: [...curves[place]].map((t) => t + (random() - 0.5)),
  })),
};

test('the log that a fitted station would have made lies on the log it was fitted to', () => {
  const fit = fitStation(NOMINAL_STATION, [trial]);
  if (!fit.ok) throw new Error('the log is refused');
  const computed = loggedBy(NOMINAL_STATION, fit.value, trial);
  expect(computed.map((c) => c.name)).toEqual(['slug', 'far']);
  for (const [k, { readC }] of computed.entries()) {
    expect(readC).toHaveLength(DURATION_S + 1);
    readC.forEach((t, i) => expect(Math.abs(t - trial.probes[k].readC[i])).toBeLessThan(3));
  }
});

test('a station that was not fitted lies elsewhere', () => {
  const nominal = { value: 0, sd: 0.1 };
  const off = {
    outletEfficiency: { ...nominal, value: 0.7 },
    multiplier: { ...nominal, value: 0.5 },
    spreadDiameters: { ...nominal, value: 3.5 },
    outletLagS: { ...nominal, value: 9 },
  };
  const [slug] = loggedBy(NOMINAL_STATION, { ...off, correlation: 0, misfit: 1, observations: 1 }, trial);
  expect(slug.readC[DURATION_S]).toBeLessThan(trial.probes[0].readC[DURATION_S] - 20);
});
