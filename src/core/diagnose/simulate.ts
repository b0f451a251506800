import type { Random } from '../math';
import type { Fault } from './faults';
import { definitionOf, type Measurement } from './measurements/registry';
import { DEFAULT_PRACTICE, errorRate, type Practice } from './practice';
import { anywhereShare, type Prediction } from './prediction';
import type { Predictor } from './predictor';
import type { Reading } from './reading';
import type { Value } from './value';

/** Draws an index by weight. */
export function pickWeighted(weights: ArrayLike<number>, random: Random): number {
  let left = random();
  for (let i = 0; i < weights.length; i++) if ((left -= weights[i]) < 0) return i;
  return weights.length - 1;
}

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

/** A reading drawn from a prediction; a slip reads whatever the instrument can show. */
export function sampleValue(m: Measurement, prediction: Prediction, slip: boolean, random: Random): Value {
  if (prediction.kind === 'verdict') {
    const fails = random() < (slip ? 0.5 : prediction.failChance);
    return { kind: fails ? 'fail' : 'pass' };
  }
  if (prediction.kind === 'choice') {
    const names = Object.keys(prediction.chance);
    const chance = names.map((name) => (slip ? 1 / names.length : prediction.chance[name]));
    return { kind: 'choice', choice: names[pickWeighted(chance, random)] };
  }
  const { alternatives } = prediction;
  const weights = alternatives.map((a) => a.weight);
  // What may read anything is drawn as a slip is.
  const share = anywhereShare(prediction);
  const anything = share > 0 && random() < share;
  const alternative = alternatives[pickWeighted(weights, random)];
  return definitionOf(m).scale.sample(alternative, slip || anything, random);
}
