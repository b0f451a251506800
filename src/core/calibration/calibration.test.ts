import { seededRandom } from '../math';
import { NOMINAL_STATION } from '../heat';
import { problemText } from '../result';
import { SimulatedStation } from '../../devices/station';
import {
  COUPON_ALLOYS_C,
  DEFAULT_BLOW,
  blowCoupon,
  calibrated,
  driftOf,
  fitStation,
  nextTrial,
  reaches,
  thresholdOf,
  trialSchema,
  type Calibration,
  type Trial,
  type Unknowns,
} from '.';

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

/** An exact melt on the true station. */
function melt(setC: number, alloyC: number): Trial[] {
  const seconds = reaches(blowCoupon(NOMINAL_STATION, TRUTH, { ...DEFAULT_BLOW, setC, durationS: 180 }).slug, alloyC);
  return seconds === null ? [] : [{ kind: 'melt', ...DEFAULT_BLOW, setC, alloyC, seconds }];
}
const threshold = (alloyC: number): Trial => ({
  kind: 'threshold',
  ...DEFAULT_BLOW,
  alloyC,
  setC: thresholdOf(NOMINAL_STATION, TRUTH, DEFAULT_BLOW, alloyC),
});

function fitted(trials: readonly Trial[]): Calibration {
  const fit = fitStation(NOMINAL_STATION, trials);
  if (!fit.ok) throw new Error(problemText(fit.problems));
  return fit.value;
}

test('hotter air lifts the slug all but in proportion: the film grows with the outlet (Martin’s correlation), what radiates grows faster', () => {
  const risen = (setC: number): number =>
    blowCoupon(NOMINAL_STATION, TRUTH, { ...DEFAULT_BLOW, setC, durationS: 600 }).slug[600] - 22;
  const inProportion = (400 - 22) / (200 - 22);
  expect(risen(400) / risen(200)).toBeGreaterThan(0.95 * inProportion);
  expect(risen(400) / risen(200)).toBeLessThan(inProportion);
});

test('one alloy at one setting is refused with the reason and the trial that would help', () => {
  const fit = fitStation(NOMINAL_STATION, melt(350, 183));
  expect(fit.ok).toBe(false);
  expect(!fit.ok && problemText(fit.problems)).toMatch(/one set point and 1 observation.*Next: (find|time)/);
});

test('no trials, and a log too short to say anything, are refused in a sentence', () => {
  const short: Trial = { kind: 'log', ...DEFAULT_BLOW, probes: [{ place: 'slug', readC: [22, 23] }] };
  for (const trials of [[], [short]]) {
    const fit = fitStation(NOMINAL_STATION, trials);
    expect(!fit.ok && problemText(fit.problems)).toMatch(/^Expected .*; got /);
  }
});

test('exact trials give the true parameters, and more of them less doubt (ranges of the prototype)', () => {
  const three = fitted([330, 370, 410].flatMap((setC) => COUPON_ALLOYS_C.flatMap((a) => melt(setC, a))));
  const guided = fitted([
    threshold(138),
    threshold(183),
    ...[350, 400].flatMap((s) => COUPON_ALLOYS_C.flatMap((a) => melt(s, a))),
  ]);
  for (const c of [three, guided]) {
    expect(Math.abs(c.outletEfficiency.value - 0.85)).toBeLessThan(0.02);
    expect(Math.abs(c.multiplier.value - 0.8)).toBeLessThan(0.05);
  }
  expect(guided.outletEfficiency.sd).toBeLessThan(three.outletEfficiency.sd);
  expect(guided.multiplier.sd).toBeLessThan(three.multiplier.sd);
  // A cooler outlet with a stronger jet does nearly the same.
  expect(three.correlation).toBeLessThan(-0.8);
});

test('a log of a minute with two probes knows more than the whole coupon', () => {
  const curves = blowCoupon(NOMINAL_STATION, TRUTH, { ...DEFAULT_BLOW, durationS: 60 });
  const log = fitted([
    {
      kind: 'log',
      ...DEFAULT_BLOW,
      probes: [
        { place: 'slug', readC: [...curves.slug] },
        { place: 'far', readC: [...curves.far] },
      ],
    },
  ]);
  expect(log.multiplier.value).toBeCloseTo(0.8, 2);
  expect(log.outletEfficiency.value).toBeCloseTo(0.85, 2);
  expect(log.multiplier.sd).toBeLessThan(0.06);
  expect(log.spreadDiameters.sd).toBeLessThan(0.5);
});

test('the proposed trial narrows the doubt more than any other that was asked for @long', () => {
  const start = [threshold(138), ...melt(350, 183), ...melt(400, 183)];
  const next = nextTrial(NOMINAL_STATION, start);
  const after = (trial: Trial[]): number => {
    const { outletEfficiency: e, multiplier: m, correlation } = fitted([...start, ...trial]);
    return e.sd * m.sd * Math.sqrt(1 - correlation ** 2);
  };
  const chosen = after(next.kind === 'threshold' ? [threshold(next.alloyC)] : melt(next.setC, next.alloyC));
  for (const other of [threshold(183), ...melt(350, 217), ...melt(400, 138)])
    expect(chosen).toBeLessThan(1.1 * after([other]));
});

test('true parameters lie in the stated ranges on a sample of simulated stations (400 in the benchmark)', () => {
  let inside = 0;
  const draws = 10;
  for (let k = 0; k < draws; k++) {
    const random = seededRandom(k);
    const truth = SimulatedStation.drawTruth(random);
    const station = new SimulatedStation(NOMINAL_STATION, truth, random);
    const fit = fitted([{ kind: 'log', ...DEFAULT_BLOW, probes: station.log(DEFAULT_BLOW, 60, ['slug', 'far']) }]);
    const within = (n: 'outletEfficiency' | 'multiplier'): boolean =>
      Math.abs(fit[n].value - truth[n]) <= 1.96 * fit[n].sd;
    inside += Number(within('outletEfficiency')) + Number(within('multiplier'));
  }
  // 95 % of 20 are 19; fewer than 16 would be one draw in four hundred.
  expect(inside).toBeGreaterThanOrEqual(16);
});

test('taken over, a calibration becomes the station’s parameters and doubt at its flow, other flows keep theirs', () => {
  const calibration: Calibration = {
    outletEfficiency: { value: 0.81, sd: 0.01 },
    multiplier: { value: 0.6, sd: 0.03 },
    spreadDiameters: { value: 3.2, sd: 0.3 },
    outletLagS: { value: 7, sd: 1 },
    correlation: -0.8,
    misfit: 1,
    observations: 20,
  };
  const before = { ...NOMINAL_STATION, multiplierByFlow: [{ flowLpm: 20, multiplier: 0.7 }] };
  const station = calibrated(before, { calibration, flowLpm: 40 });
  expect(station).toMatchObject({
    outletEfficiency: 0.81,
    multiplier: 0.6,
    spreadDiameters: 3.2,
    outletLagS: 7,
    doubt: 0.05,
  });
  expect(station.multiplierByFlow).toEqual([
    { flowLpm: 20, multiplier: 0.7 },
    { flowLpm: 40, multiplier: 0.6 },
  ]);
  const drift = driftOf(calibration, { ...calibration, multiplier: { value: 0.75, sd: 0.03 } });
  expect(drift).toMatchObject({ efficiencySds: 0, real: true });
  expect(drift.multiplierSds).toBeCloseTo(0.15 / Math.hypot(0.03, 0.03), 9);
  expect(driftOf(calibration, calibration).real).toBe(false);
});

describe('a probe that reads low', () => {
  const low = { ...TRUTH, probeShare: 0.95 };
  const curves = blowCoupon(NOMINAL_STATION, low, { ...DEFAULT_BLOW, durationS: 60 });
  const shown = (list: Float64Array): number[] => [...list].map((t) => 22 + 0.95 * (t - 22));
  const log: Trial = {
    kind: 'log',
    ...DEFAULT_BLOW,
    probes: [
      { place: 'slug', readC: shown(curves.slug) },
      { place: 'far', readC: shown(curves.far) },
    ],
  };
  const point = (trueC: number): Trial => ({
    kind: 'fixedPoint',
    trueC,
    readC: 22 + 0.95 * (trueC - 22),
    ambientC: 22,
  });

  test('makes the station look cooler, within the doubt that is stated; fixed points put it right', () => {
    const alone = fitted([log]);
    const pinned = fitted([log, point(100), point(183)]);
    expect(alone.outletEfficiency.value).toBeLessThan(0.84);
    expect(Math.abs(alone.outletEfficiency.value - 0.85)).toBeLessThan(1.96 * alone.outletEfficiency.sd);
    expect(Math.abs(pinned.outletEfficiency.value - 0.85)).toBeLessThan(0.012);
    expect(pinned.outletEfficiency.sd).toBeLessThan(0.6 * alone.outletEfficiency.sd);
    expect(alone.fit).toMatchObject({ holds: true });
  });

  test('fixed points alone say nothing of a station', () => {
    const fit = fitStation(NOMINAL_STATION, [point(100)]);
    expect(!fit.ok && problemText(fit.problems)).toMatch(/^Expected at least one trial with air/);
  });
});

describe('the test of fit', () => {
  const curves = blowCoupon(NOMINAL_STATION, TRUTH, { ...DEFAULT_BLOW, durationS: 60 });
  const log = (share: number): Trial => ({
    kind: 'log',
    ...DEFAULT_BLOW,
    probes: [{ place: 'slug', readC: [...curves.slug].map((t) => 22 + share * (t - 22)) }],
  });

  test('holds for exact trials', () => {
    const { fit } = fitted([log(1), ...melt(350, 183), ...melt(400, 217)]);
    expect(fit).toMatchObject({ holds: true });
    expect(fit!.chance).toBeGreaterThan(0.5);
  });

  test('names the assumption that broke, and the trials that contradict one another @long', () => {
    // The coupon melts as it should; the probe reads a third low, far beyond what probes do.
    const { fit } = fitted([log(0.66), ...melt(350, 138), ...melt(350, 183), ...melt(400, 217), threshold(183)]);
    expect(fit!.holds).toBe(false);
    expect(fit!.broken).toMatch(/^It would fit if the probe reads (6|7)\d % of the true rise\.$/);
    const late = melt(400, 217).map((t) => (t.kind === 'melt' ? { ...t, seconds: 2.2 * t.seconds } : t));
    const early = melt(350, 138).map((t) => (t.kind === 'melt' ? { ...t, seconds: 0.4 * t.seconds } : t));
    const torn = fitted([log(1), ...late, ...early, threshold(183)]).fit!;
    expect(torn.holds).toBe(false);
    expect(torn.contradicting).toMatch(
      /138 °C alloy timed at 350 speaks for a hotter station, the 217 °C alloy timed at 400 for a cooler/,
    );
  });
});

test('a trial that makes no sense is refused', () => {
  expect(trialSchema.safeParse({ kind: 'melt', ...DEFAULT_BLOW, alloyC: 183, seconds: 0 }).success).toBe(false);
  expect(trialSchema.safeParse({ kind: 'melt', ...DEFAULT_BLOW, setC: 900, alloyC: 183, seconds: 30 }).success).toBe(
    false,
  );
  expect(trialSchema.safeParse({ kind: 'threshold', ...DEFAULT_BLOW, alloyC: 183 }).success).toBe(true);
});
