import { Matrix, inverse, solve } from 'ml-matrix';
import { fail, ok, type Result } from '../result';
import type { Station } from '../heat';
import { blowCoupon, reaches, type CouponCurves, type CouponRun, type ProbePlace, type Unknowns } from './coupon';

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

export type Trial = MeltTrial | ThresholdTrial | LogTrial;

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
  /** Correlation of efficiency and multiplier: near −1, one stands in for the other. */
  readonly correlation: number;
  /** Root mean square of the residuals in their own standard deviations: about 1 when noise is what it is taken for. */
  readonly misfit: number;
  readonly observations: number;
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
 * What is known before: nothing of efficiency and multiplier but that they are physical; entrainment 3.5 and lag 6 s are
 * estimates; heat capacity and the probe's reading carry the systematic errors into the stated doubt.
 */
export const BEFORE: Record<keyof Unknowns, Estimate> = {
  outletEfficiency: { value: 0.85, sd: 5 },
  multiplier: { value: 0.75, sd: 5 },
  spreadDiameters: { value: 3.5, sd: 0.5 },
  outletLagS: { value: 6, sd: 1.5 },
  heatShare: { value: 1, sd: 0.03 },
  probeShare: { value: 1, sd: 0.01 },
};
const NAMES = Object.keys(BEFORE) as (keyof Unknowns)[];
/** Physical bounds. */
const BOUNDS: Record<keyof Unknowns, readonly [number, number]> = {
  outletEfficiency: [0.4, 1.1],
  multiplier: [0.15, 2.5],
  spreadDiameters: [1.5, 8],
  outletLagS: [0.5, 20],
  heatShare: [0.8, 1.2],
  probeShare: [0.9, 1.1],
};
/** Shares by which an unknown is moved to see what it does. */
const PROBE_SHARE = 0.01;
const MOST_ROUNDS = 14;
/** Beyond these the numbers say nothing that a plan could use: one standard deviation. Engineering estimates. */
const MOST_EFFICIENCY_SD = 0.12;
const MOST_MULTIPLIER_SHARE = 0.3;

/**
 * Fits efficiency, multiplier, entrainment and lag to trials: least squares with what is known before, by Levenberg–Marquardt;
 * the covariance is that of the normal equations at the answer.
 * Refused when the trials cannot tell efficiency from multiplier, with the trial that would.
 */
export function fitStation(station: Station, trials: readonly Trial[]): Result<Calibration> {
  if (trials.length === 0) return fail('Expected at least one trial; got none.');
  const unseen = trials.filter((t) => t.kind === 'log' && t.probes.every((p) => p.readC.length < 10));
  if (unseen.length > 0) return fail('Expected a log of at least ten seconds; got a shorter one.');
  let at = Object.fromEntries(NAMES.map((n) => [n, BEFORE[n].value])) as unknown as Unknowns;
  let damping = 1e-3;
  let here = residualsOf(station, trials, at);
  let slopes = jacobian(station, trials, at, here);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const normal = normalOf(slopes);
    const damped = normal.clone();
    for (let k = 0; k < NAMES.length; k++) damped.set(k, k, normal.get(k, k) * (1 + damping));
    const downhill = Matrix.columnVector(slopes.map((s) => -s.reduce((sum, v, i) => sum + v * here[i], 0)));
    const by = solve(damped, downhill).to1DArray();
    const next = Object.fromEntries(NAMES.map((n, k) => [n, clamp(at[n] + by[k], BOUNDS[n])])) as unknown as Unknowns;
    const there = residualsOf(station, trials, next);
    const gain = sumOfSquares(here) - sumOfSquares(there);
    if (gain > 0) {
      [at, here] = [next, there];
      slopes = jacobian(station, trials, at, here);
      damping /= 5;
    } else damping *= 5;
    if (Math.abs(gain) < 1e-3 || damping > 1e6) break;
  }
  return judged(station, trials, at, here, slopes);
}

function judged(
  station: Station,
  trials: readonly Trial[],
  at: Unknowns,
  residuals: readonly number[],
  slopes: readonly (readonly number[])[],
): Result<Calibration> {
  const covariance = inverse(normalOf(slopes));
  const sd = (k: number): number => Math.sqrt(covariance.get(k, k));
  const observations = residuals.length - NAMES.length;
  const [e, m] = [0, 1];
  if (sd(e) > MOST_EFFICIENCY_SD || sd(m) > MOST_MULTIPLIER_SHARE * at.multiplier) {
    const next = nextTrial(station, trials, at);
    const settings = new Set(trials.map((t) => t.setC)).size;
    return fail(
      `Expected trials that tell a hot outlet from a strong jet; got ${settings === 1 ? 'one set point' : `${settings} set points`} and ${observations} ${observations === 1 ? 'observation' : 'observations'}: a cooler outlet with a stronger jet fits them as well. Next: ${trialWords(next)}.`,
    );
  }
  const estimate = (name: keyof Unknowns): Estimate => ({ value: at[name], sd: sd(NAMES.indexOf(name)) });
  const data = residuals.slice(0, observations);
  return ok({
    outletEfficiency: estimate('outletEfficiency'),
    multiplier: estimate('multiplier'),
    spreadDiameters: estimate('spreadDiameters'),
    outletLagS: estimate('outletLagS'),
    correlation: covariance.get(e, m) / (sd(e) * sd(m)),
    misfit: Math.sqrt(sumOfSquares(data) / observations),
    observations,
  });
}

const clamp = (x: number, [low, high]: readonly [number, number]): number => Math.min(high, Math.max(low, x));
const sumOfSquares = (list: readonly number[]): number => list.reduce((sum, x) => sum + x * x, 0);

/** JᵀJ; the slopes are the columns of J. */
const normalOf = (slopes: readonly (readonly number[])[]): Matrix =>
  new Matrix(slopes.map((a) => slopes.map((b) => a.reduce((sum, v, i) => sum + v * b[i], 0))));

function jacobian(station: Station, trials: readonly Trial[], at: Unknowns, here: readonly number[]): number[][] {
  return NAMES.map((name) => {
    const step = PROBE_SHARE * at[name];
    return residualsOf(station, trials, { ...at, [name]: at[name] + step }).map((r, i) => (r - here[i]) / step);
  });
}

/** Observed less predicted in standard deviations, then the unknowns against what is known before. */
function residualsOf(station: Station, trials: readonly Trial[], at: Unknowns): number[] {
  const runs = new Map<string, CouponCurves>();
  const blow = (trial: Trial, durationS: number): CouponCurves => {
    const { setC, flowLpm, nozzleMm, heightMm, ambientC } = trial;
    const run = { setC, flowLpm, nozzleMm, heightMm, ambientC, durationS };
    const key = JSON.stringify(run);
    if (!runs.has(key)) runs.set(key, blowCoupon(station, at, run));
    return runs.get(key)!;
  };
  return [
    ...trials.flatMap((trial) => observed(trial, at, (durationS) => blow(trial, durationS))),
    ...NAMES.map((n) => (at[n] - BEFORE[n].value) / BEFORE[n].sd),
  ];
}

/** Readings of a log that count as one: noise is told from drift over so many seconds. */
const LOG_EVERY_S = 3;

function observed(trial: Trial, at: Unknowns, blow: (durationS: number) => CouponCurves): number[] {
  if (trial.kind === 'melt') {
    const { slug } = blow(LONGEST_MELT_S);
    const when = reaches(slug, trial.alloyC);
    const sd = Math.hypot(meltSdS(trial.seconds), ALLOY_SD_K / Math.max(slopeAt(slug, trial.seconds), 0.05));
    if (when !== null) return [(trial.seconds - when) / sd];
    // It melted, but here it never would: how far it stays away, as seconds at the slope that is left.
    const missingK = trial.alloyC - slug[LONGEST_MELT_S];
    return [-(LONGEST_MELT_S - trial.seconds + missingK / 0.05) / sd];
  }
  if (trial.kind === 'threshold') {
    const reachedC = blow(THRESHOLD_S).slug[THRESHOLD_S];
    const perDial = (reachedC - trial.ambientC) / (trial.setC - trial.ambientC);
    const middle = reachedC - perDial * (THRESHOLD_STEP_C / 2);
    return [(trial.alloyC - middle) / Math.hypot(ALLOY_SD_K, (perDial * THRESHOLD_STEP_C) / Math.sqrt(12))];
  }
  const longest = Math.max(...trial.probes.map((p) => p.readC.length)) - 1;
  const curves = blow(longest);
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
export function nextTrial(station: Station, trials: readonly Trial[], at?: Unknowns): AskedTrial {
  const now = at ?? ({ ...Object.fromEntries(NAMES.map((n) => [n, BEFORE[n].value])) } as unknown as Unknowns);
  const base = trials[0] ?? DEFAULT_BLOW;
  const known = normalOf(jacobian(station, trials, now, residualsOf(station, trials, now)));
  const candidates = ASKED.flatMap((asked): { asked: AskedTrial; trial: Trial }[] => {
    const setC = asked.setC ?? thresholdOf(station, now, base, asked.alloyC);
    const done = trials.some(
      (t) => t.kind === asked.kind && t.alloyC === asked.alloyC && (t.kind === 'threshold' || t.setC === setC),
    );
    if (done || setC > station.setC[1]) return [];
    const trial = { ...base, kind: asked.kind, alloyC: asked.alloyC, setC } as Trial;
    if (trial.kind === 'threshold') return [{ asked: { ...asked, setC }, trial }];
    const seconds = reaches(blowCoupon(station, now, { ...base, setC, durationS: LONGEST_MELT_S }).slug, asked.alloyC);
    return seconds === null ? [] : [{ asked: { ...asked, setC }, trial: { ...trial, seconds } as MeltTrial }];
  });
  const doubt = ({ trial }: { trial: Trial }): number => {
    const here = residualsOf(station, [trial], now).slice(0, 1);
    const rows = NAMES.map((name) => {
      const step = PROBE_SHARE * now[name];
      return (residualsOf(station, [trial], { ...now, [name]: now[name] + step })[0] - here[0]) / step;
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
  const reachedC = (setC: number): number => {
    const { flowLpm, nozzleMm, heightMm, ambientC } = blow;
    return blowCoupon(station, at, { flowLpm, nozzleMm, heightMm, ambientC, setC, durationS: THRESHOLD_S }).slug[
      THRESHOLD_S
    ];
  };
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
