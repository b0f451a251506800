import { reaches, type CouponCurves, type CouponRun, type ProbePlace, type Unknowns } from './coupon';

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

/** The alloys of the coupon, °C. */
export const COUPON_ALLOYS_C = [138, 183, 217] as const;
/** A threshold is sought in steps of so many °C, and within so many seconds. */
export const THRESHOLD_STEP_C = 5;
export const THRESHOLD_S = 120;
export const LONGEST_MELT_S = 180;

/** Seeing that an alloy melts: 5 % of the time and a second (prototype). */
export const meltSdS = (seconds: number): number => Math.hypot(0.05 * seconds, 1);
/** A melting point on the coupon, K; a thermocouple's own noise, K. Engineering estimates. */
export const ALLOY_SD_K = 1;
export const PROBE_SD_K = 1;

/** A blow's own settings, in one order. */
export const blowOf = ({ setC, flowLpm, nozzleMm, heightMm, ambientC }: Omit<CouponRun, 'durationS'>) => ({
  ...{ setC, flowLpm, nozzleMm, heightMm, ambientC },
});

/** Readings of a log that count as one: noise is told from drift over so many seconds. */
const LOG_EVERY_S = 3;

/** What a trial showed less what a station would have made it show, in standard deviations. */
export function observed(
  trial: Trial,
  at: Unknowns,
  blow: (trial: BlowTrial, durationS: number) => CouponCurves,
): number[] {
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
