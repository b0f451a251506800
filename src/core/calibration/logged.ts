import type { PartRef } from '../identities';
import { Matrix, inverse } from 'ml-matrix';
import {
  COARSE_MESH,
  STATION_UNKNOWNS,
  doubtDirections,
  movedBy,
  planSeconds,
  simulateHeat,
  unknownsOf,
  type HeatCurves,
  type HeatPlan,
  type Station,
} from '../heat';
import { partByRef, type Board } from '../board';
import { fail, ok, type Result } from '../result';
import { calibrationOf, type Calibration } from './fit';
import { PROBE_SD_K } from './observation';

/** What a thermocouple at a part's joints showed while a plan was run; 0 s is when the air came on. */
export interface LoggedCurve {
  readonly ref: PartRef;
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
/** A direction is followed so far to see what it does, in its standard deviations. */
const SLOPE_STEP_SDS = 0.25;
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
  const directions = doubtDirections(station);
  const computed = (by: readonly number[]): HeatCurves =>
    simulateHeat(board, movedBy(station, directions, by), plan, COARSE)!;
  const offs = (run: HeatCurves, at: typeof readings): number[] => {
    const { jointMeanC } = run.parts.find((p) => p.ref === curve.ref)!;
    return at.map(({ atS, readC }) => readC - jointMeanC[atS]);
  };
  const own = PROBE_SD_K ** 2 + MODEL_SD_K ** 2;
  // How far along each direction, in its standard deviations: nought, with a variance of one, is what was known before.
  let by = directions.map(() => 0);
  let variance = Matrix.eye(directions.length);
  const first = computed(by);
  let here = first;
  for (let round = 0; round < ROUNDS; round++) {
    const off = offs(here, used);
    const slopes = directions.map((_, k) => {
      const moved = offs(computed(by.map((v, j) => v + (j === k ? SLOPE_STEP_SDS : 0))), used);
      return moved.map((o, i) => (off[i] - o) / SLOPE_STEP_SDS);
    });
    const jacobian = new Matrix(slopes).transpose();
    const information = jacobian.transpose().mmul(jacobian).div(own);
    variance = inverse(Matrix.add(Matrix.eye(directions.length), information));
    const pull = jacobian.transpose().mmul(Matrix.columnVector(off)).div(own).sub(Matrix.columnVector(by));
    const step = variance.mmul(pull).to1DArray();
    by = by.map((v, k) => v + step[k]);
    here = computed(by);
  }
  const root = new Matrix(directions).transpose();
  const known = unknownsOf(station);
  const shift = root.mmul(Matrix.columnVector(by)).to1DArray();
  return ok({
    residualsK: offs(first, readings).map((offK, i) => ({ atS: readings[i].atS, offK })),
    rmsK: rms(offs(first, readings)),
    rmsAfterK: rms(offs(here, readings)),
    calibration: calibrationOf(
      station,
      STATION_UNKNOWNS.map((name, i) => known[name] + shift[i]),
      root.mmul(variance).mmul(root.transpose()).to2DArray(),
      { misfit: rms(offs(here, used)) / Math.sqrt(own), observations: used.length },
    ),
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
