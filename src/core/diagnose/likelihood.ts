import { definitionOf, type Measurement } from './measurements/registry';
import { DEFAULT_PRACTICE, errorRate, type Practice } from './practice';
import { anywhereShare, type Prediction } from './prediction';
import type { Value } from './value';

/** What else was read in the job that bears on an unlisted fault. */
export interface Around {
  /** What the same test read earlier: what is unlisted is mostly the same then. */
  readonly before?: Value;
  /** Share of readings that an unlisted fault at the net changes, after the others there. */
  readonly broadShare?: number;
}

/** Likelihood of a value under one prediction, wrong readings counted in. */
export function likelihood(
  m: Measurement,
  value: Value,
  prediction: Prediction,
  practice: Practice = DEFAULT_PRACTICE,
  around: Around = {},
): number {
  const wrong = errorRate(m.kind, practice);
  return (1 - wrong) * fit(m, value, prediction, around) + wrong * slipped(m, value, prediction);
}

/** Share of readings at an unlisted fault that are as they were before. Engineering estimate. */
const AS_BEFORE = 0.9;

/** Density or chance of a value where no reading is wrong. */
function fit(m: Measurement, value: Value, prediction: Prediction, { before, broadShare }: Around): number {
  const { broad } = prediction;
  const whole = plainFit(m, value, prediction);
  if (!broad || (before === undefined && broadShare === undefined)) return whole;
  const plain = plainFit(m, value, broad.plain);
  const anew = (whole - (1 - broad.share) * plain) / broad.share;
  const anything = before ? AS_BEFORE * definitionOf(m).scale.again(value, before) + (1 - AS_BEFORE) * anew : anew;
  const share = broad.share < 1 ? (broadShare ?? broad.share) : 1;
  return (1 - share) * plain + share * anything;
}

function plainFit(m: Measurement, value: Value, prediction: Prediction): number {
  if (prediction.kind === 'choice') return value.kind === 'choice' ? (prediction.chance[value.choice] ?? 0) : 0;
  if (prediction.kind === 'verdict') return value.kind === 'fail' ? prediction.failChance : 1 - prediction.failChance;
  const { scale } = definitionOf(m);
  const anything = anywhereShare(prediction) * (scale.broad?.(value, prediction.broad?.sound ?? 0) ?? 0);
  return prediction.alternatives.reduce((sum, alt) => sum + alt.weight * scale.density(value, alt), anything);
}

/** Of two densities, the share that speaks for a reading being changed rather than as on a sound board. */
export function changedShare(m: Measurement, value: Value, sound: Prediction, broadened: Prediction): number {
  const asSound = plainFit(m, value, sound);
  const { broad } = broadened;
  if (!broad) return 0;
  const anything = (plainFit(m, value, broadened) - (1 - broad.share) * asSound) / broad.share;
  return asSound + anything > 0 ? anything / (asSound + anything) : 0.5;
}

/** Density or chance of a wrong reading: evenly over what the kind can answer, and for probes often no contact at all. */
function slipped(m: Measurement, value: Value, prediction: Prediction): number {
  if (prediction.kind === 'choice') return 1 / (prediction.answers ?? Object.keys(prediction.chance).length);
  if (prediction.kind === 'verdict') return 1 / 2;
  return definitionOf(m).scale.slip(value);
}
