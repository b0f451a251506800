import { normalCdf, normalPdf } from '../math';
import { OUTSIDE, priorOf, type Fault, type HistoryFlag } from './faults';
import { STOPS } from '../usb';
import { choiceOf, mendedFor, type Measurement, type Reading, type Value } from './measurement';
import { DEFAULT_PRACTICE, errorRate, type Practice } from './practice';
import { DROP_OPEN_V, OPEN_LOG_OHM, type Predictor } from './predict';
import { SHAPES, type Alternative, type Prediction } from './prediction';

/** Density of a wrong reading: evenly over what the instrument can show. */
const WRONG_DENSITY: Record<Measurement['kind'], number> = {
  usb: 1 / (25 * 3),
  shape: 1 / SHAPES.length,
  talk: 1 / STOPS.length,
  tester: 0.5,
  swap: 0.5,
  pin: 0.5,
  look: 0.5,
  drop: 0.5,
  ohm: 1 / 7,
  through: 1 / 7,
  volts: 1 / 25,
  works: 0.5,
  image: 0.5,
  lift: 1 / 7,
};

/** A continuity beep sounds below about 30 Ω (common practice, no source). */
const BEEP_LOG_OHM = Math.log10(30);

const isResistance = (m: Measurement): boolean => m.kind === 'ohm' || m.kind === 'through' || m.kind === 'lift';

/** Likelihood of a value under one prediction, wrong readings counted in. */
export function likelihood(
  m: Measurement,
  value: Value,
  prediction: Prediction,
  practice: Practice = DEFAULT_PRACTICE,
): number {
  const wrong = errorRate(m.kind, practice);
  if (prediction.kind === 'choice') {
    const fits = prediction.chance[choiceOf(value) ?? ''] ?? 0;
    return (1 - wrong) * fits + wrong * WRONG_DENSITY[m.kind];
  }
  if (prediction.kind === 'verdict') {
    const fits = value.kind === 'fail' ? prediction.failChance : 1 - prediction.failChance;
    return (1 - wrong) * fits + wrong * 0.5;
  }
  const density = prediction.alternatives.reduce((sum, alt) => sum + alt.weight * densityOf(m, value, alt), 0);
  return (1 - wrong) * density + wrong * WRONG_DENSITY[m.kind];
}

function densityOf(m: Measurement, value: Value, alt: Alternative): number {
  const [mean, sd] = [alt.means[0], alt.sds[0]];
  if (value.kind === 'pair') return normalPdf(value.volts, mean, sd) * normalPdf(value.amps, alt.means[1], alt.sds[1]);
  if (value.kind === 'beep') return normalCdf(BEEP_LOG_OHM, mean, sd);
  if (value.kind === 'open')
    return isResistance(m) ? normalPdf(OPEN_LOG_OHM, mean, sd) : normalPdf(DROP_OPEN_V, mean, sd);
  if (value.kind !== 'figure') return 0;
  if (!isResistance(m)) return normalPdf(value.value, mean, sd);
  return normalPdf(Math.min(OPEN_LOG_OHM, Math.log10(Math.max(value.value, 0.1))), mean, sd);
}

export interface Belief {
  readonly faults: readonly Fault[];
  /** Probability of each fault before any reading, same order. */
  readonly prior: Float64Array;
  /** Probability of each fault, same order. */
  readonly p: Float64Array;
  /** likelihoods[r][f] of reading r under fault f. */
  readonly likelihoods: readonly Float64Array[];
}

/** Counts readings into the prior. Readings are independent given the fault. */
export function updateBelief(
  predictor: Predictor,
  readings: readonly Reading[],
  history: readonly HistoryFlag[],
  practice: Practice = DEFAULT_PRACTICE,
): Belief {
  const { faults } = predictor;
  const prior = priorOf(predictor.board, faults, history);
  const p = Float64Array.from(prior);
  const likelihoods = readings.map((r) => {
    const absent = new Set(r.absent ?? []);
    const replaced = new Set(mendedFor(r));
    return Float64Array.from(predictor.predictRow(r.measurement, absent, replaced), (prediction) =>
      likelihood(r.measurement, r.value, prediction, practice),
    );
  });
  for (const row of likelihoods) {
    for (let i = 0; i < p.length; i++) p[i] *= row[i];
    const total = p.reduce((s, v) => s + v, 0);
    for (let i = 0; i < p.length; i++) p[i] /= total;
  }
  return { faults, prior, p, likelihoods };
}

export interface Suspect {
  /** The part, or {@link OUTSIDE}. */
  readonly ref: string;
  readonly words: string;
  readonly p: number;
  /** The likeliest fault mode of the part. */
  readonly fault: Fault;
}

/** Parts by probability, each with its likeliest fault mode. */
export function suspects(belief: Belief): Suspect[] {
  const byRef = new Map<string, { p: number; best: number }>();
  belief.faults.forEach((f, i) => {
    const ref = f.ref || OUTSIDE;
    const entry = byRef.get(ref);
    if (!entry) byRef.set(ref, { p: belief.p[i], best: i });
    else {
      entry.p += belief.p[i];
      if (belief.p[i] > belief.p[entry.best]) entry.best = i;
    }
  });
  return [...byRef]
    .map(([ref, { p, best }]) => ({ ref, p, fault: belief.faults[best], words: belief.faults[best].words }))
    .sort((a, b) => b.p - a.p);
}

export interface Weight {
  /** Index of the reading. */
  readonly reading: number;
  /** log10 of how much likelier the reading is with the suspect's likeliest fault than with the others, before any reading. */
  readonly decades: number;
}

/** The readings that speak for or against a suspect, strongest first. */
export function weightsFor(belief: Belief, ref: string): Weight[] {
  const mine = belief.faults.map((f) => (f.ref || OUTSIDE) === ref);
  const own = Float64Array.from(belief.p, (p, i) => (mine[i] ? p : 0));
  const others = Float64Array.from(belief.prior, (p, i) => (mine[i] ? 0 : p));
  return belief.likelihoods
    .map((row, reading) => ({ reading, decades: Math.log10(weightedMean(row, own) / weightedMean(row, others)) }))
    .sort((a, b) => Math.abs(b.decades) - Math.abs(a.decades));
}

function weightedMean(values: Float64Array, weights: Float64Array): number {
  let sum = 0;
  let total = 0;
  for (let i = 0; i < values.length; i++) {
    sum += weights[i] * values[i];
    total += weights[i];
  }
  return sum / total;
}
