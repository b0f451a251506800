import { z } from 'zod';
import { withMultiplier, type Station } from '../heat';
import { PROBE_PLACES_MM } from './coupon';
import type { Calibration } from './fit';
import type { Trial } from './observation';

const blow = {
  setC: z
    .number()
    .min(100, 'expected a set point from 100 to 500 °C')
    .max(500, 'expected a set point from 100 to 500 °C'),
  flowLpm: z.number().min(2).max(120),
  nozzleMm: z.number().min(2).max(20),
  heightMm: z.number().min(2).max(80),
  ambientC: z.number().min(0).max(45),
};
const alloyC = z.number().min(60).max(330);
const places = Object.keys(PROBE_PLACES_MM) as (keyof typeof PROBE_PLACES_MM)[];

/** A trial as it is kept with a calibration. */
export const trialSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('melt'),
    ...blow,
    alloyC,
    seconds: z.number().min(1, 'expected at least a second').max(600),
  }),
  z.object({ kind: z.literal('threshold'), ...blow, alloyC }),
  z.object({
    kind: z.literal('fixedPoint'),
    trueC: z.number().min(-40).max(500),
    readC: z.number().min(-60).max(600),
    ambientC: blow.ambientC,
  }),
  z.object({
    kind: z.literal('log'),
    ...blow,
    probes: z
      .array(z.object({ place: z.enum(places as [string, ...string[]]), readC: z.array(z.number()).max(3600) }))
      .min(1),
  }),
]) as unknown as z.ZodType<Trial>;

/** A calibration that was taken over, as the station's history keeps it. */
export interface CalibrationRecord {
  readonly at: string;
  readonly flowLpm: number;
  readonly trials: number;
  readonly calibration: Calibration;
}

/** The station with what a calibration found; other flows keep theirs, in the same measure where there was none. */
export function calibrated(
  station: Station,
  { calibration, flowLpm }: Omit<CalibrationRecord, 'at' | 'trials'>,
): Station {
  const { outletEfficiency, multiplier, spreadDiameters, outletLagS, lossShare, flowExponent, covariance } =
    calibration;
  const others = station.multiplierByFlow.filter((k) => k.flowLpm !== flowLpm);
  const byFlow = [...others, { flowLpm, multiplier: round(multiplier.value) }].sort((a, b) => a.flowLpm - b.flowLpm);
  return {
    ...withMultiplier(station, round(multiplier.value)),
    multiplierByFlow: byFlow,
    outletEfficiency: round(outletEfficiency.value),
    spreadDiameters: round(spreadDiameters.value),
    outletLagS: round(outletLagS.value),
    lossShare: round(lossShare?.value ?? station.lossShare),
    efficiencyByFlow: { exponent: round(flowExponent?.value ?? 0), atFlowLpm: calibration.atFlowLpm ?? flowLpm },
    known: covariance ? { covariance: covariance.map((row) => [...row]) } : null,
    doubt: round(Math.min(0.5, multiplier.sd / multiplier.value)),
  };
}

const round = (x: number): number => Math.round(x * 1000) / 1000;

export interface Drift {
  /** Change from the calibration before, in standard deviations of both. */
  readonly efficiencySds: number;
  readonly multiplierSds: number;
  /** Beyond what the two doubts explain. */
  readonly real: boolean;
}

/**
 * Two calibrations differ for real where the larger of their two differences is beyond what 95 % of pairs of one station would show:
 * each of the two is then held to √0.95, whatever their correlation. Source: Šidák (1967), rectangular confidence regions.
 */
const REAL_SDS = 2.236;

export function driftOf(before: Calibration, after: Calibration): Drift {
  const sds = (name: 'outletEfficiency' | 'multiplier'): number =>
    (after[name].value - before[name].value) / Math.hypot(after[name].sd, before[name].sd);
  const [efficiencySds, multiplierSds] = [sds('outletEfficiency'), sds('multiplier')];
  return { efficiencySds, multiplierSds, real: Math.max(Math.abs(efficiencySds), Math.abs(multiplierSds)) > REAL_SDS };
}
