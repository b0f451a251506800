import { inverse } from 'ml-matrix';
import { STATION_UNKNOWNS, type Station, type StationUnknown } from '../heat';
import { median } from '../math';
import { fail, ok, type Result } from '../result';
import { Blows, type Unknowns } from './coupon';
import { testOfFit, type FitTest } from './goodness-of-fit';
import { BEFORE, NAMES, leastSquares, normalOf, sumOfSquares, type Estimate, type Fitted } from './least-squares';
import { mostTelling, trialWords } from './next-trial';
import type { Trial } from './observation';

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
