import type { Random } from '../math';
import type { Fault } from './faults';
import type { Measurement, Reading, Value } from './measurement';
import { DEFAULT_PRACTICE, errorRate, type Practice } from './practice';
import { OPEN_LOG_OHM, type Predictor } from './predict';
import { answerOf } from './outcomes';
import type { Alternative, Prediction } from './prediction';

/** What an instrument can show, evenly over which a wrong reading falls: ohms as log10, volts, and volts with amps. */
const RESISTANCE_RANGE: readonly [number, number] = [-1, OPEN_LOG_OHM];
const DROP_RANGE_V: readonly [number, number] = [0, 2];
const VOLT_RANGE: readonly [number, number] = [0, 25];
const AMP_RANGE: readonly [number, number] = [0, 3];

/** Draws an index by weight. */
export function pickWeighted(weights: ArrayLike<number>, random: Random): number {
  let left = random();
  for (let i = 0; i < weights.length; i++) if ((left -= weights[i]) < 0) return i;
  return weights.length - 1;
}

/** A normal draw by Box and Muller (1958). */
const normal = (random: Random): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/**
 * One reading of a board with this fault as a bench would take it: with the spread of its prediction, and wrong as often
 * as its kind is.
 */
export function sampleReading(
  predictor: Predictor,
  measurement: Measurement,
  fault: Fault,
  random: Random,
  board: { absent?: readonly string[]; replaced?: readonly string[]; practice?: Practice } = {},
): Reading {
  const { absent = [], replaced = [], practice = DEFAULT_PRACTICE } = board;
  const slip = random() < errorRate(measurement.kind, practice);
  const prediction = predictor.predict(measurement, fault, new Set(absent), new Set(replaced));
  return { measurement, value: sampleValue(measurement, prediction, slip, random), absent, replaced };
}

function sampleValue(m: Measurement, prediction: Prediction, slip: boolean, random: Random): Value {
  if (prediction.kind === 'verdict') {
    const fails = random() < (slip ? 0.5 : prediction.failChance);
    return { kind: fails ? 'fail' : 'pass' };
  }
  if (prediction.kind === 'choice') {
    const names = Object.keys(prediction.chance);
    const chance = names.map((name) => (slip ? 1 / names.length : prediction.chance[name]));
    return answerOf(names[pickWeighted(chance, random)]);
  }
  const weights = prediction.alternatives.map((a) => a.weight);
  const alternative = prediction.alternatives[pickWeighted(weights, random)];
  if (m.kind === 'usb') {
    const [volts, amps] = [VOLT_RANGE, AMP_RANGE].map((range, i) =>
      Math.max(0, draw(alternative, i, range, slip, random)),
    );
    return { kind: 'pair', volts, amps };
  }
  if (m.kind === 'volts') return { kind: 'figure', value: draw(alternative, 0, VOLT_RANGE, slip, random) };
  if (m.kind === 'drop' || m.kind === 'pin' || m.kind === 'joint')
    return { kind: 'figure', value: draw(alternative, 0, DROP_RANGE_V, slip, random) };
  const logOhm = draw(alternative, 0, RESISTANCE_RANGE, slip, random);
  return logOhm >= OPEN_LOG_OHM ? { kind: 'open' } : { kind: 'figure', value: 10 ** logOhm };
}

function draw(
  alternative: Alternative,
  dimension: number,
  [low, high]: readonly [number, number],
  slip: boolean,
  random: Random,
): number {
  return slip
    ? low + random() * (high - low)
    : alternative.means[dimension] + alternative.sds[dimension] * normal(random);
}
