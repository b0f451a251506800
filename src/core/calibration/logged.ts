import { Matrix, inverse } from 'ml-matrix';
import {
  COARSE_MESH,
  EFFICIENCY_SHARE,
  planSeconds,
  simulateHeat,
  withMultiplier,
  type HeatCurves,
  type HeatPlan,
  type Station,
} from '../heat';
import { partByRef, type Board } from '../board';
import { fail, ok, type Result } from '../result';
import { BEFORE, PROBE_SD_K, type Calibration } from './fit';

/** What a thermocouple at a part's joints showed while a plan was run; 0 s is when the air came on. */
export interface LoggedCurve {
  readonly ref: string;
  readonly timesS: readonly number[];
  readonly readC: readonly number[];
}

/** A real run held against its computation, and what it says of the station. */
export interface LoggedAnswer {
  /** Read less computed at whole seconds, K. */
  readonly residualsK: readonly { readonly atS: number; readonly offK: number }[];
  readonly rmsK: number;
  /** What is left when the station is taken as the run says. */
  readonly rmsAfterK: number;
  readonly calibration: Calibration;
}

/** Readings this far apart are taken as independent: what the model leaves out stays for a while, s. Engineering estimate. */
const EVERY_S = 5;
/** Copper, contact and place of the probe are not as the board file says, K. Engineering estimate. */
const MODEL_SD_K = 4;
const ROUNDS = 2;
const PROBE_SHARE = 0.02;
const LEAST_READINGS = 6;
/** The runs only need to tell the stations apart, and joints to a kelvin. */
const COARSE = { ...COARSE_MESH, frames: false };

/**
 * Least squares over a logged run, with the station as it was known before as the prior (Gauss–Newton, two rounds).
 * Refused where the curve hardly overlaps the plan or its part is not on the board.
 */
export function calibrationFromCurve(
  board: Board,
  station: Station,
  plan: HeatPlan,
  curve: LoggedCurve,
): Result<LoggedAnswer> {
  if (!partByRef(board, curve.ref)) return fail(`Expected a probe at a part of this board; got "${curve.ref}".`);
  const readings = everySecond(curve, planSeconds(plan));
  const used = readings.filter(({ atS }) => atS > 0 && atS % EVERY_S === 0);
  if (used.length < LEAST_READINGS)
    return fail(
      `Expected readings over at least ${LEAST_READINGS * EVERY_S} s of the plan’s ${planSeconds(plan)} s; got ${readings.length} s.`,
    );
  const computed = (e: number, m: number): HeatCurves =>
    simulateHeat(board, { ...withMultiplier(station, m), outletEfficiency: e }, plan, COARSE)!;
  const offs = (run: HeatCurves, at: typeof readings): number[] => {
    const { jointMeanC } = run.parts.find((p) => p.ref === curve.ref)!;
    return at.map(({ atS, readC }) => readC - jointMeanC[atS]);
  };
  const before = [station.outletEfficiency, station.multiplier];
  const sds = [EFFICIENCY_SHARE * station.doubt * before[0], station.doubt * before[1]];
  const own = PROBE_SD_K ** 2 + MODEL_SD_K ** 2;
  let now = before;
  let covariance = Matrix.diag(sds.map((s) => s ** 2));
  const first = computed(before[0], before[1]);
  let here = first;
  for (let round = 0; round < ROUNDS; round++) {
    const off = offs(here, used);
    const slopes = [0, 1].map((k) => {
      const by = PROBE_SHARE * now[k];
      const moved = offs(computed(now[0] + (k === 0 ? by : 0), now[1] + (k === 1 ? by : 0)), used);
      return moved.map((o, i) => (off[i] - o) / by);
    });
    const jacobian = new Matrix(slopes).transpose();
    const precision = Matrix.diag(sds.map((s) => 1 / s ** 2));
    covariance = inverse(Matrix.add(precision, jacobian.transpose().mmul(jacobian).div(own)));
    const pull = Matrix.add(
      jacobian.transpose().mmul(Matrix.columnVector(off)).div(own),
      precision.mmul(Matrix.columnVector(before.map((b, k) => b - now[k]))),
    );
    const step = covariance.mmul(pull).to1DArray();
    now = now.map((v, k) => v + step[k]);
    here = computed(now[0], now[1]);
  }
  const [sdE, sdM] = [Math.sqrt(covariance.get(0, 0)), Math.sqrt(covariance.get(1, 1))];
  return ok({
    residualsK: offs(first, readings).map((offK, i) => ({ atS: readings[i].atS, offK })),
    rmsK: rms(offs(first, readings)),
    rmsAfterK: rms(offs(here, readings)),
    calibration: {
      outletEfficiency: { value: now[0], sd: sdE },
      multiplier: { value: now[1], sd: sdM },
      spreadDiameters: { value: station.spreadDiameters, sd: BEFORE.spreadDiameters.sd },
      outletLagS: { value: station.outletLagS, sd: BEFORE.outletLagS.sd },
      correlation: covariance.get(0, 1) / (sdE * sdM),
      misfit: rms(offs(here, used)) / Math.sqrt(own),
      observations: used.length,
    },
  });
}

/** The readings at the whole seconds of a plan, between the two nearest by a straight line. */
function everySecond({ timesS, readC }: LoggedCurve, endS: number): { atS: number; readC: number }[] {
  const found: { atS: number; readC: number }[] = [];
  for (let atS = 0, i = 0; atS <= endS; atS++) {
    while (i < timesS.length - 2 && timesS[i + 1] < atS) i++;
    if (timesS[i] > atS || timesS[i + 1] < atS) continue;
    const share = (atS - timesS[i]) / (timesS[i + 1] - timesS[i]);
    found.push({ atS, readC: readC[i] + share * (readC[i + 1] - readC[i]) });
  }
  return found;
}

const rms = (list: readonly number[]): number => Math.sqrt(list.reduce((s, v) => s + v * v, 0) / list.length);
