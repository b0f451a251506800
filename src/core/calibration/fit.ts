import { Matrix, inverse, solve } from 'ml-matrix';
import { chiSquareTail, median } from '../math';
import { fail, ok, type Result } from '../result';
import { PRIOR_SDS, STATION_BOUNDS, STATION_UNKNOWNS, type Station, type StationUnknown } from '../heat';
import { Blows, reaches, type CouponCurves, type CouponRun, type ProbePlace, type Unknowns } from './coupon';

/** An alloy on the coupon that was seen to melt. */
export interface MeltTrial extends Omit<CouponRun, 'durationS'> {
  readonly kind: 'melt';
  readonly alloyC: number;
  readonly seconds: number;
}

/** The lowest set point, in fives, at which an alloy melts within two minutes. */
export interface ThresholdTrial extends Omit<CouponRun, 'durationS'> {
  readonly kind: 'threshold';
  readonly alloyC: number;
}

/** A thermocouple log of one blow: readings at whole seconds from the moment the air is on. */
export interface LogTrial extends Omit<CouponRun, 'durationS'> {
  readonly kind: 'log';
  readonly probes: readonly { readonly place: ProbePlace; readonly readC: readonly number[] }[];
}

/** What the probe of the logs shows at a temperature that is known: ice water, boiling water, an alloy that melts under it. */
export interface FixedPointTrial {
  readonly kind: 'fixedPoint';
  readonly trueC: number;
  readonly readC: number;
  /** Where the probe's error begins: its cold end. */
  readonly ambientC: number;
}

export type BlowTrial = MeltTrial | ThresholdTrial | LogTrial;
export type Trial = BlowTrial | FixedPointTrial;

export interface Estimate {
  readonly value: number;
  /** One standard deviation. */
  readonly sd: number;
}

export interface Calibration {
  readonly outletEfficiency: Estimate;
  readonly multiplier: Estimate;
  readonly spreadDiameters: Estimate;
  readonly outletLagS: Estimate;
  /** Missing in calibrations that were made before losses and flows counted as unknown. */
  readonly lossShare?: Estimate;
  readonly flowExponent?: Estimate;
  /** The flow that the efficiency holds at, l/min. */
  readonly atFlowLpm?: number;
  /** Of all unknowns of a station, in their order ({@link STATION_UNKNOWNS}). */
  readonly covariance?: readonly (readonly number[])[];
  /** Correlation of efficiency and multiplier: near −1, one stands in for the other. */
  readonly correlation: number;
  /** Root mean square of the residuals in their own standard deviations: about 1 when noise is what it is taken for. */
  readonly misfit: number;
  readonly observations: number;
  /** Whether what is assumed can have given these trials; missing where a single run was held against a station. */
  readonly fit?: FitTest;
}

/** The alloys of the coupon, °C. */
export const COUPON_ALLOYS_C = [138, 183, 217] as const;
/** A threshold is sought in steps of so many °C, and within so many seconds. */
export const THRESHOLD_STEP_C = 5;
export const THRESHOLD_S = 120;
const LONGEST_MELT_S = 180;

/** Seeing that an alloy melts: 5 % of the time and a second (prototype). */
export const meltSdS = (seconds: number): number => Math.hypot(0.05 * seconds, 1);
/** A melting point on the coupon, K; a thermocouple's own noise, K. Engineering estimates. */
export const ALLOY_SD_K = 1;
export const PROBE_SD_K = 1;

/**
 * What is known before: nothing of efficiency and multiplier but that they are physical; entrainment 3.5, lag 6 s, losses and how
 * efficiency goes with the flow are estimates; heat capacity and the probe's reading carry the systematic errors into the stated doubt.
 * A probe that lies on a surface or is stuck to it reads a few per cent of the rise low or high (common practice, no source);
 * a fixed point pins it.
 */
export const BEFORE: Record<keyof Unknowns, Estimate> = {
  outletEfficiency: { value: 0.85, sd: 5 },
  multiplier: { value: 0.75, sd: 5 },
  spreadDiameters: { value: 3.5, sd: PRIOR_SDS.spreadDiameters },
  outletLagS: { value: 6, sd: PRIOR_SDS.outletLagS },
  lossShare: { value: 1, sd: PRIOR_SDS.lossShare },
  flowExponent: { value: 0, sd: PRIOR_SDS.flowExponent },
  heatShare: { value: 1, sd: 0.03 },
  probeShare: { value: 1, sd: 0.04 },
};
const NAMES = Object.keys(BEFORE) as (keyof Unknowns)[];
/** Physical bounds. */
const BOUNDS: Record<keyof Unknowns, readonly [number, number]> = {
  ...STATION_BOUNDS,
  heatShare: [0.5, 2],
  probeShare: [0.5, 1.5],
};
/** An unknown is moved by so much of itself to see what it does, and at least by so much. */
const PROBE_SHARE = 0.01;
const stepOf = (value: number): number => Math.max(PROBE_SHARE, PROBE_SHARE * Math.abs(value));
const MOST_ROUNDS = 14;
/** Beyond these the numbers say nothing that a plan could use: one standard deviation. Engineering estimates. */
const MOST_EFFICIENCY_SD = 0.12;
const MOST_MULTIPLIER_SHARE = 0.3;

/**
 * Fits efficiency, multiplier, entrainment and lag to trials: least squares with what is known before, by Levenberg–Marquardt;
 * the covariance is that of the normal equations at the answer.
 * Refused when the trials cannot tell efficiency from multiplier, with the trial that would.
 */
export function fitStation(whole: Station, trials: readonly Trial[]): Result<Calibration> {
  const blows = new Blows(atOneFlow(whole, trials));
  if (trials.length === 0) return fail('Expected at least one trial; got none.');
  if (!trials.some((t) => t.kind !== 'fixedPoint'))
    return fail('Expected at least one trial with air on the coupon; got fixed points of the probe only.');
  const unseen = trials.filter((t) => t.kind === 'log' && t.probes.every((p) => p.readC.length < 10));
  if (unseen.length > 0) return fail('Expected a log of at least ten seconds; got a shorter one.');
  return judged(blows, trials, leastSquares(blows, trials, BEFORE));
}

/** The efficiency is stated at one flow, the middle one of the trials. */
function atOneFlow(station: Station, trials: readonly Trial[]): Station {
  const flows = trials.flatMap((t) => (t.kind === 'fixedPoint' ? [] : [t.flowLpm]));
  return { ...station, efficiencyByFlow: { exponent: 0, atFlowLpm: median(flows) } };
}

type Prior = Record<keyof Unknowns, Estimate>;

const centreOf = (prior: Prior): Unknowns =>
  Object.fromEntries(NAMES.map((n) => [n, prior[n].value])) as unknown as Unknowns;

interface Fitted {
  readonly at: Unknowns;
  /** In standard deviations: of the observations, then of what was known before. */
  readonly residuals: readonly number[];
  readonly slopes: readonly (readonly number[])[];
}

/** Levenberg–Marquardt, from what is known before where no better place to begin is given. */
function leastSquares(blows: Blows, trials: readonly Trial[], prior: Prior, from = centreOf(prior)): Fitted {
  let at = from;
  let damping = 1e-3;
  let here = residualsOf(blows, trials, at, prior);
  let slopes = jacobian(blows, trials, at, here, prior);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const normal = normalOf(slopes);
    const damped = normal.clone();
    for (let k = 0; k < NAMES.length; k++) damped.set(k, k, normal.get(k, k) * (1 + damping));
    const downhill = Matrix.columnVector(slopes.map((s) => -s.reduce((sum, v, i) => sum + v * here[i], 0)));
    const by = solve(damped, downhill).to1DArray();
    const next = Object.fromEntries(NAMES.map((n, k) => [n, clamp(at[n] + by[k], BOUNDS[n])])) as unknown as Unknowns;
    const there = residualsOf(blows, trials, next, prior);
    const gain = sumOfSquares(here) - sumOfSquares(there);
    if (gain > 0) {
      [at, here] = [next, there];
      slopes = jacobian(blows, trials, at, here, prior);
      damping /= 5;
    } else damping *= 5;
    if (Math.abs(gain) < 1e-3 || damping > 1e6) break;
  }
  return { at, residuals: here, slopes };
}

function judged(blows: Blows, trials: readonly Trial[], { at, residuals, slopes }: Fitted): Result<Calibration> {
  const covariance = inverse(normalOf(slopes));
  const sd = (name: keyof Unknowns): number => Math.sqrt(covariance.get(NAMES.indexOf(name), NAMES.indexOf(name)));
  const observations = residuals.length - NAMES.length;
  if (sd('outletEfficiency') > MOST_EFFICIENCY_SD || sd('multiplier') > MOST_MULTIPLIER_SHARE * at.multiplier) {
    const next = mostTelling(blows, trials, at);
    const settings = new Set(trials.flatMap((t) => (t.kind === 'fixedPoint' ? [] : [t.setC]))).size;
    return fail(
      `Expected trials that tell a hot outlet from a strong jet; got ${settings === 1 ? 'one set point' : `${settings} set points`} and ${observations} ${observations === 1 ? 'observation' : 'observations'}: a cooler outlet with a stronger jet fits them as well. Next: ${trialWords(next)}.`,
    );
  }
  const data = residuals.slice(0, observations);
  const order = STATION_UNKNOWNS.map((name) => NAMES.indexOf(name));
  const told = { misfit: Math.sqrt(sumOfSquares(data) / observations), observations };
  return ok({
    ...calibrationOf(
      blows.station,
      STATION_UNKNOWNS.map((name) => at[name]),
      order.map((a) => order.map((b) => covariance.get(a, b))),
      told,
    ),
    fit: testOfFit(blows, trials, { at, residuals, slopes }),
  });
}

/** A calibration from values of the unknowns and their covariance, in the order of {@link STATION_UNKNOWNS}. */
export function calibrationOf(
  station: Station,
  values: readonly number[],
  covariance: readonly (readonly number[])[],
  told: Pick<Calibration, 'misfit' | 'observations'>,
): Calibration {
  const estimates = Object.fromEntries(
    STATION_UNKNOWNS.map((name, i) => [name, { value: values[i], sd: Math.sqrt(covariance[i][i]) }]),
  ) as unknown as Record<StationUnknown, Estimate>;
  return {
    ...estimates,
    ...(station.efficiencyByFlow ? { atFlowLpm: station.efficiencyByFlow.atFlowLpm } : {}),
    covariance,
    correlation: covariance[0][1] / (estimates.outletEfficiency.sd * estimates.multiplier.sd),
    ...told,
  };
}

/** Whether the trials can come from one station as it is taken to be. */
export interface FitTest {
  /** Sum of squares of all residuals, what was known before among them, in standard deviations; and how many are free. */
  readonly chiSquare: number;
  readonly free: number;
  /** Chance of as much or more where everything is as assumed. */
  readonly chance: number;
  readonly holds: boolean;
  /** Where it does not: which assumption, set free, explains most of it; and trials that pull in opposite directions. */
  readonly broken?: string;
  readonly contradicting?: string;
}

/** One honest calibration in a hundred is told that it does not fit. Engineering estimate. */
const LEAST_CHANCE = 0.01;
/** An assumption is set free by widening what was known of it so much; it is named where that takes half of the excess away. */
const SET_FREE = 6;
const EXPLAINS = 0.5;
/** So many, the likeliest by the slopes, are fitted anew. */
const FITTED_ANEW = 2;
/** A trial pulls where its residuals are off by so many standard deviations on average, by their number. */
const PULLS_SDS = 2.5;

const ASSUMPTIONS: Partial<Record<keyof Unknowns, (found: number) => string>> = {
  probeShare: (v) => `the probe reads ${percent(v)} of the true rise`,
  heatShare: (v) => `the coupon holds ${percent(v)} of the heat of its drawing`,
  lossShare: (v) => `still air and radiation take ${percent(v)} of what is assumed`,
  flowExponent: (v) => `the outlet efficiency goes with the flow to the power ${v.toFixed(2)}`,
  outletLagS: (v) => `the outlet follows the dial with ${v.toFixed(1)} s`,
  spreadDiameters: (v) => `cold air is drawn in within ${v.toFixed(1)} diameters`,
};
const percent = (share: number): string => `${Math.round(100 * share)} %`;

function testOfFit(blows: Blows, trials: readonly Trial[], found: Fitted): FitTest {
  const { at, residuals } = found;
  const chiSquare = sumOfSquares(residuals);
  // The residuals of what was known before stand in for the unknowns that are fitted.
  const free = Math.max(1, residuals.length - NAMES.length);
  const chance = chiSquareTail(chiSquare, free);
  if (chance >= LEAST_CHANCE) return { chiSquare, free, chance, holds: true };
  const excess = chiSquare - free;
  const likeliest = (Object.keys(ASSUMPTIONS) as (keyof Unknowns)[])
    .map((name) => ({ name, left: leftWhereFree(found, name) }))
    .sort((a, b) => a.left - b.left)
    .slice(0, FITTED_ANEW);
  const freed = likeliest.map(({ name }) => {
    const { at: there, residuals: left } = leastSquares(blows, trials, setFree(name), at);
    return { words: ASSUMPTIONS[name]!(there[name]), explained: chiSquare - sumOfSquares(left) };
  });
  const most = freed.reduce((a, b) => (b.explained > a.explained ? b : a));
  return {
    ...{ chiSquare, free, chance, holds: false },
    broken:
      most.explained > EXPLAINS * excess
        ? `It would fit if ${most.words}.`
        : 'No single assumption explains it: look at the trials themselves.',
    contradicting: contradiction(blows, trials, at),
  };
}

const setFree = (name: keyof Unknowns): Prior => ({
  ...BEFORE,
  [name]: { ...BEFORE[name], sd: SET_FREE * BEFORE[name].sd },
});

/** What would be left of the sum of squares with an assumption set free, by the slopes where the fit stands (one Gauss–Newton step). */
function leftWhereFree({ residuals, slopes }: Fitted, name: keyof Unknowns): number {
  const row = residuals.length - NAMES.length + NAMES.indexOf(name);
  const wider = (list: readonly number[]): number[] => list.map((v, i) => (i === row ? v / SET_FREE : v));
  const [left, columns] = [wider(residuals), slopes.map(wider)];
  const downhill = Matrix.columnVector(columns.map((c) => -c.reduce((sum, v, i) => sum + v * left[i], 0)));
  const by = solve(normalOf(columns), downhill).to1DArray();
  return sumOfSquares(left.map((r, i) => r + columns.reduce((sum, c, k) => sum + c[i] * by[k], 0)));
}

/** The two trials that pull hardest in opposite directions; undefined where they do not. */
function contradiction(blows: Blows, trials: readonly Trial[], at: Unknowns): string | undefined {
  const pulls = trials.map((trial) => {
    const off = residualsOf(blows, [trial], at, BEFORE).slice(0, -NAMES.length);
    const hotter = trial.kind === 'melt' ? -1 : 1;
    return { trial, sds: (hotter * off.reduce((a, b) => a + b, 0)) / Math.sqrt(off.length) };
  });
  const [hot, cold] = [1, -1].map((sign) => pulls.reduce((a, b) => (sign * b.sds > sign * a.sds ? b : a)));
  if (hot.sds < PULLS_SDS || cold.sds > -PULLS_SDS) return undefined;
  return `${named(hot.trial)} speaks for a hotter station, ${named(cold.trial)} for a cooler one.`;
}

function named(trial: Trial): string {
  if (trial.kind === 'fixedPoint') return `the fixed point at ${trial.trueC} °C`;
  if (trial.kind === 'log') return `the log at ${trial.setC}`;
  return `the ${trial.alloyC} °C alloy ${trial.kind === 'melt' ? `timed at ${trial.setC}` : 'at its lowest set point'}`;
}

const clamp = (x: number, [low, high]: readonly [number, number]): number => Math.min(high, Math.max(low, x));
const sumOfSquares = (list: readonly number[]): number => list.reduce((sum, x) => sum + x * x, 0);

/** JᵀJ; the slopes are the columns of J. */
const normalOf = (slopes: readonly (readonly number[])[]): Matrix =>
  new Matrix(slopes.map((a) => slopes.map((b) => a.reduce((sum, v, i) => sum + v * b[i], 0))));

function jacobian(
  blows: Blows,
  trials: readonly Trial[],
  at: Unknowns,
  here: readonly number[],
  prior: Prior = BEFORE,
): number[][] {
  return NAMES.map((name) => {
    const step = stepOf(at[name]);
    return residualsOf(blows, trials, { ...at, [name]: at[name] + step }, prior).map((r, i) => (r - here[i]) / step);
  });
}

/** A blow's own settings, in one order. */
const blowOf = ({ setC, flowLpm, nozzleMm, heightMm, ambientC }: Omit<CouponRun, 'durationS'>) => ({
  ...{ setC, flowLpm, nozzleMm, heightMm, ambientC },
});

/** Observed less predicted in standard deviations, then the unknowns against what is known before. */
function residualsOf(blows: Blows, trials: readonly Trial[], at: Unknowns, prior: Prior = BEFORE): number[] {
  const blow = (trial: BlowTrial, durationS: number): CouponCurves => blows.curves(at, { ...blowOf(trial), durationS });
  return [
    ...trials.flatMap((trial) => observed(trial, at, blow)),
    ...NAMES.map((n) => (at[n] - prior[n].value) / prior[n].sd),
  ];
}

/** Readings of a log that count as one: noise is told from drift over so many seconds. */
const LOG_EVERY_S = 3;

function observed(trial: Trial, at: Unknowns, blow: (trial: BlowTrial, durationS: number) => CouponCurves): number[] {
  if (trial.kind === 'fixedPoint')
    return [(trial.readC - trial.ambientC - at.probeShare * (trial.trueC - trial.ambientC)) / PROBE_SD_K];
  if (trial.kind === 'melt') {
    const { slug } = blow(trial, LONGEST_MELT_S);
    const when = reaches(slug, trial.alloyC);
    const sd = Math.hypot(meltSdS(trial.seconds), ALLOY_SD_K / Math.max(slopeAt(slug, trial.seconds), 0.05));
    if (when !== null) return [(trial.seconds - when) / sd];
    // It melted, but here it never would: how far it stays away, as seconds at the slope that is left.
    const missingK = trial.alloyC - slug[LONGEST_MELT_S];
    return [-(LONGEST_MELT_S - trial.seconds + missingK / 0.05) / sd];
  }
  if (trial.kind === 'threshold') {
    const reachedC = blow(trial, THRESHOLD_S).slug[THRESHOLD_S];
    const perDial = (reachedC - trial.ambientC) / (trial.setC - trial.ambientC);
    const middle = reachedC - perDial * (THRESHOLD_STEP_C / 2);
    return [(trial.alloyC - middle) / Math.hypot(ALLOY_SD_K, (perDial * THRESHOLD_STEP_C) / Math.sqrt(12))];
  }
  const longest = Math.max(...trial.probes.map((p) => p.readC.length)) - 1;
  const curves = blow(trial, longest);
  return trial.probes.flatMap(({ place, readC }) =>
    readC.flatMap((read, s) => {
      if (s === 0 || s % LOG_EVERY_S !== 0) return [];
      const shown = trial.ambientC + at.probeShare * (curves[place][s] - trial.ambientC);
      return [(read - shown) / PROBE_SD_K];
    }),
  );
}

const slopeAt = (curve: Float64Array, seconds: number): number => {
  const i = Math.min(curve.length - 1, Math.max(1, Math.round(seconds)));
  return curve[i] - curve[i - 1];
};

/** What the guided protocol may ask for next: thresholds of two alloys, and three alloys timed hot and hotter. */
const ASKED: readonly { readonly kind: 'melt' | 'threshold'; readonly alloyC: number; readonly setC?: number }[] = [
  { kind: 'threshold', alloyC: 138 },
  { kind: 'threshold', alloyC: 183 },
  ...[350, 400].flatMap((setC) => COUPON_ALLOYS_C.map((alloyC) => ({ kind: 'melt' as const, alloyC, setC }))),
];

export interface AskedTrial {
  readonly kind: 'melt' | 'threshold';
  readonly alloyC: number;
  /** For a threshold: where to look for it. */
  readonly setC: number;
}

/** The trial that narrows the doubt of efficiency and multiplier most, from what is known so far (D-optimal design). */
export const nextTrial = (station: Station, trials: readonly Trial[]): AskedTrial =>
  mostTelling(new Blows(station), trials, centreOf(BEFORE));

function mostTelling(blows: Blows, trials: readonly Trial[], now: Unknowns): AskedTrial {
  const base = trials.find((t) => t.kind !== 'fixedPoint') ?? DEFAULT_BLOW;
  const known = normalOf(jacobian(blows, trials, now, residualsOf(blows, trials, now)));
  const candidates = ASKED.flatMap((asked): { asked: AskedTrial; trial: Trial }[] => {
    const setC = asked.setC ?? lowestSetting(blows, now, base, asked.alloyC);
    const done = trials.some(
      (t) => t.kind === asked.kind && t.alloyC === asked.alloyC && (t.kind === 'threshold' || t.setC === setC),
    );
    if (done || setC > blows.station.setC[1]) return [];
    const trial = { ...base, kind: asked.kind, alloyC: asked.alloyC, setC } as Trial;
    if (trial.kind === 'threshold') return [{ asked: { ...asked, setC }, trial }];
    const { slug } = blows.curves(now, { ...blowOf(base), setC, durationS: LONGEST_MELT_S });
    const seconds = reaches(slug, asked.alloyC);
    return seconds === null ? [] : [{ asked: { ...asked, setC }, trial: { ...trial, seconds } as MeltTrial }];
  });
  const doubt = ({ trial }: { trial: Trial }): number => {
    const here = residualsOf(blows, [trial], now).slice(0, 1);
    const rows = NAMES.map((name) => {
      const step = stepOf(now[name]);
      return (residualsOf(blows, [trial], { ...now, [name]: now[name] + step })[0] - here[0]) / step;
    });
    const more = known.clone();
    rows.forEach((a, i) => rows.forEach((b, j) => more.set(i, j, more.get(i, j) + a * b)));
    const c = inverse(more);
    return c.get(0, 0) * c.get(1, 1) - c.get(0, 1) ** 2;
  };
  const told = candidates.map((c) => ({ ...c, doubt: doubt(c) }));
  // All asked and done: the hottest melt once more.
  if (told.length === 0) return { kind: 'melt', alloyC: 217, setC: 400 };
  return told.reduce((a, b) => (b.doubt < a.doubt ? b : a)).asked;
}

/** The blow that the protocol proposes on a station that has it. Common practice for the figures. */
export const DEFAULT_BLOW = { flowLpm: 30, nozzleMm: 6, heightMm: 12, ambientC: 22, setC: 350 } as const;

/** The lowest set point, in fives, at which an alloy melts within two minutes. */
export function thresholdOf(
  station: Station,
  at: Unknowns,
  blow: Omit<CouponRun, 'durationS' | 'setC'>,
  alloyC: number,
): number {
  return lowestSetting(new Blows(station), at, blow, alloyC);
}

function lowestSetting(
  blows: Blows,
  at: Unknowns,
  blow: Omit<CouponRun, 'durationS' | 'setC'>,
  alloyC: number,
): number {
  const reachedC = (setC: number): number =>
    blows.curves(at, { ...blowOf({ ...blow, setC }), durationS: THRESHOLD_S }).slug[THRESHOLD_S];
  // All but linear in the set point: a secant finds it, the last steps walk the fives.
  let setC = 300;
  for (let k = 0; k < 3; k++) {
    const reached = reachedC(setC);
    setC = Math.round(blow.ambientC + ((setC - blow.ambientC) * (alloyC - blow.ambientC)) / (reached - blow.ambientC));
  }
  setC = Math.ceil(setC / THRESHOLD_STEP_C) * THRESHOLD_STEP_C;
  while (reachedC(setC - THRESHOLD_STEP_C) >= alloyC) setC -= THRESHOLD_STEP_C;
  while (reachedC(setC) < alloyC) setC += THRESHOLD_STEP_C;
  return setC;
}

export const trialWords = ({ kind, alloyC, setC }: AskedTrial): string =>
  kind === 'threshold'
    ? `find the lowest set point, in fives, that melts the ${alloyC} °C alloy within ${THRESHOLD_S} s; look near ${setC}`
    : `time the ${alloyC} °C alloy at ${setC}`;
