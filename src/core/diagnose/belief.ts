import { FaultCase } from './case';
import { OUTSIDE, type Fault, type HistoryFlag } from './faults';
import { definitionOf, type Measurement } from './measurements/registry';
import type { TestTable } from './outcome-partition';
import { DEFAULT_PRACTICE, errorRate, type JobPractice, type Practice } from './practice';
import type { Prediction } from './prediction';
import type { Predictor } from './predictor';
import { clearedFaults, type Reading } from './reading';
import type { Likely } from './space';
import type { Value } from './value';

/** Likelihood of a value under one prediction, wrong readings counted in: evenly over what the kind can answer. */
export function likelihood(
  m: Measurement,
  value: Value,
  prediction: Prediction,
  practice: Practice = DEFAULT_PRACTICE,
): number {
  const wrong = errorRate(m.kind, practice);
  if (prediction.kind === 'choice') {
    const fits = value.kind === 'choice' ? (prediction.chance[value.choice] ?? 0) : 0;
    return (1 - wrong) * fits + wrong / Object.keys(prediction.chance).length;
  }
  if (prediction.kind === 'verdict') {
    const fits = value.kind === 'fail' ? prediction.failChance : 1 - prediction.failChance;
    return (1 - wrong) * fits + wrong / 2;
  }
  const { density, slipDensity } = definitionOf(m).scale;
  const fits = prediction.alternatives.reduce((sum, alt) => sum + alt.weight * density(value, alt), 0);
  return (1 - wrong) * fits + wrong * slipDensity;
}

export interface Evidence {
  readonly table: TestTable;
  /** Likelihood of the reading by row of its table. */
  readonly likelihood: Float64Array;
}

export interface Belief {
  readonly case: FaultCase;
  readonly faults: readonly Fault[];
  /** Probability of each hypothesis before any reading, and now; numbered as in the space of the case. */
  readonly prior: Float64Array;
  readonly p: Float64Array;
  readonly likely: Likely;
  /** Chance of each fault, alone or with another. */
  readonly marginal: Float64Array;
  /** One for each reading, in order. */
  readonly evidence: readonly Evidence[];
}

/** The prior is the same for every job with the same story: kept by case. */
const priors = new WeakMap<FaultCase, Map<string, Float64Array>>();

function priorFor(faultCase: FaultCase, history: readonly HistoryFlag[], practice: JobPractice): Float64Array {
  let kept = priors.get(faultCase);
  if (!kept) priors.set(faultCase, (kept = new Map<string, Float64Array>()));
  const { factors, records, doubleShare, deadOnArrival, again } = practice;
  const key = JSON.stringify([[...history].sort(), factors, records, doubleShare, deadOnArrival, again]);
  let prior = kept.get(key);
  if (!prior) kept.set(key, (prior = faultCase.space.prior(faultCase.predictor.board, history, practice)));
  return prior;
}

/**
 * Counts readings into the prior. Readings are independent given the faults.
 * @param replaced parts that are new by now: their own faults, bad out of the packet, are reckoned with.
 */
export function updateBelief(
  predictor: Predictor,
  readings: readonly Reading[],
  history: readonly HistoryFlag[],
  practice: JobPractice = DEFAULT_PRACTICE,
  replaced: Iterable<string> = readings.flatMap((r) => r.replaced ?? []),
): Belief {
  const faultCase = FaultCase.of(predictor, replaced);
  const { space, faults } = faultCase;
  const prior = priorFor(faultCase, history, practice);
  const p = Float64Array.from(prior);
  const evidence = readings.map((r): Evidence => {
    const table = faultCase.table(r.measurement, new Set(r.absent ?? []), new Set(clearedFaults(r)));
    const rowLikelihood = Float64Array.from(table.rows, (row) => likelihood(r.measurement, r.value, row, practice));
    space.update(p, table, rowLikelihood);
    return { table, likelihood: rowLikelihood };
  });
  return { case: faultCase, faults, prior, p, likely: space.likely(p), marginal: space.marginal(p), evidence };
}

/** The belief if a test came out in one of its classes. */
export function conditioned(belief: Belief, table: TestTable, given: Float64Array): Belief {
  const { space } = belief.case;
  const p = belief.p.slice();
  space.update(p, table, given);
  return { ...belief, p, likely: space.likely(p), marginal: space.marginal(p) };
}

export interface Suspect {
  /** The part, or {@link OUTSIDE}. */
  readonly ref: string;
  readonly words: string;
  /** Chance that it is at fault, alone or with another. */
  readonly p: number;
  /** The likeliest fault mode of the part. */
  readonly fault: Fault;
}

const refOf = (f: Fault): string => f.ref || OUTSIDE;

/** Parts by probability, each with its likeliest fault mode. With two faults at once the chances sum to more than one. */
export function suspects(belief: Belief): Suspect[] {
  const { faults, marginal } = belief;
  const byRef = new Map<string, { p: number; best: number }>();
  faults.forEach((f, i) => {
    const entry = byRef.get(refOf(f));
    if (!entry) byRef.set(refOf(f), { p: marginal[i], best: i });
    else {
      entry.p += marginal[i];
      if (marginal[i] > marginal[entry.best]) entry.best = i;
    }
  });
  return [...byRef]
    .map(([ref, { p, best }]) => ({ ref, p: Math.min(1, p), fault: faults[best], words: faults[best].words }))
    .sort((a, b) => b.p - a.p);
}

/** Two parts at fault together. */
export interface SuspectPair {
  readonly refs: readonly [string, string];
  readonly words: readonly [string, string];
  readonly p: number;
}

/** Pairs of parts by probability, each with its likeliest fault modes. */
export function suspectPairs(belief: Belief, most = 3): SuspectPair[] {
  const { faults, p } = belief;
  const byRefs = new Map<string, { p: number; best: number; faults: [number, number] }>();
  belief.case.space.forEach((h, i, j) => {
    if (j < 0 || p[h] < 1e-6 || faults[i].ref === faults[j].ref) return;
    const key = [refOf(faults[i]), refOf(faults[j])].sort().join(' ');
    const entry = byRefs.get(key);
    if (!entry) byRefs.set(key, { p: p[h], best: p[h], faults: [i, j] });
    else {
      entry.p += p[h];
      if (p[h] > entry.best) Object.assign(entry, { best: p[h], faults: [i, j] });
    }
  });
  return [...byRefs.values()]
    .sort((a, b) => b.p - a.p)
    .slice(0, most)
    .map(({ p: chance, faults: [i, j] }) => ({
      refs: [refOf(faults[i]), refOf(faults[j])],
      words: [faults[i].words, faults[j].words],
      p: chance,
    }));
}

export interface Weight {
  /** Index of the reading. */
  readonly reading: number;
  /** log10 of how much likelier the reading is with the suspect at fault than with it sound, before any reading. */
  readonly decades: number;
}

/** The readings that speak for or against a suspect, strongest first. */
export function weightsFor(belief: Belief, ref: string): Weight[] {
  const { faults, likely, prior, evidence } = belief;
  const { space } = belief.case;
  const isMine = Uint8Array.from([...faults.map((f) => Number(refOf(f) === ref)), 0]);
  // With the suspect at fault: as it is believed now. Without: as it was before any reading.
  const own = likely.p.map((p, k) => (isMine[likely.first[k]] || isMine[likely.second[k]] ? p : 0));
  const others = prior.slice();
  space.forEach((h, i, j) => {
    if (isMine[i] || (j >= 0 && isMine[j])) others[h] = 0;
  });
  return evidence
    .map((e, reading) => {
      const guilty = meanOver(space.likelyRowMass({ ...likely, p: own }, e.table), e.likelihood);
      const without = meanOver(space.rowMass(others, e.table), e.likelihood);
      return { reading, decades: Math.log10(guilty / without) };
    })
    .sort((a, b) => Math.abs(b.decades) - Math.abs(a.decades));
}

/** Mean of a figure per row, by the rows' mass. */
function meanOver(mass: Float64Array, perRow: Float64Array): number {
  let total = 0;
  let value = 0;
  for (let row = 0; row < mass.length; row++) {
    total += mass[row];
    value += mass[row] * perRow[row];
  }
  return value / total;
}
