import type { Alternative, Prediction } from './prediction';
import type { Value } from './value';

/** A class of readings that cannot be told apart at the bench. */
export interface OutcomeClass {
  /** Centre of the class, one figure per dimension (ohms as log10); empty where the answer is no figure. */
  readonly means: readonly number[];
  /** The answer, where it is no figure. */
  readonly answer?: Value;
  /** Chance of it under each fault. */
  readonly given: Float64Array;
}

/** Means closer than this many spreads count as the same reading. */
const SAME_WITHIN_SPREADS = 3;

/** Sorts the possible readings of a test, one prediction per fault, into classes. */
export function classify(predictions: readonly Prediction[]): OutcomeClass[] {
  if (predictions[0].kind === 'verdict') {
    const fail = Float64Array.from(predictions, (x) => (x.kind === 'verdict' ? x.failChance : 0));
    return [
      { means: [], answer: { kind: 'pass' }, given: fail.map((x) => 1 - x) },
      { means: [], answer: { kind: 'fail' }, given: fail },
    ];
  }
  if (predictions[0].kind === 'choice') {
    return Object.keys(predictions[0].chance).map((choice) => ({
      means: [],
      answer: { kind: 'choice', choice },
      given: Float64Array.from(predictions, (x) => (x.kind === 'choice' ? x.chance[choice] : 0)),
    }));
  }
  const alternatives = predictions.map((x) => (x.kind === 'values' ? x.alternatives : []));
  const centres = cluster(alternatives.flat());
  const classes = centres.map((centre) => ({ means: centre.means, given: new Float64Array(predictions.length) }));
  const classOf = new Map<string, number>();
  alternatives.forEach((list, f) => {
    for (const alt of list) {
      const key = meansKey(alt);
      let c = classOf.get(key);
      if (c === undefined) classOf.set(key, (c = nearestCentre(centres, alt)));
      classes[c].given[f] += alt.weight;
    }
  });
  return classes.filter((o) => o.given.some((g) => g > 0));
}

const meansKey = (alt: Alternative): string => alt.means.map((m) => m.toFixed(3)).join(' ');

function cluster(all: readonly Alternative[]): Alternative[] {
  const distinct = new Map(all.map((alt) => [meansKey(alt), alt]));
  const centres: Alternative[] = [];
  for (const alt of [...distinct.values()].sort(
    (a, b) => a.means[0] - b.means[0] || (a.means[1] ?? 0) - (b.means[1] ?? 0),
  )) {
    if (!centres.some((c) => spreadsApart(c, alt) < SAME_WITHIN_SPREADS)) centres.push(alt);
  }
  return centres;
}

function spreadsApart(a: Alternative, b: Alternative): number {
  return Math.max(...a.means.map((m, i) => Math.abs(m - b.means[i]) / Math.max(a.sds[i], b.sds[i])));
}

function nearestCentre(centres: readonly Alternative[], alt: Alternative): number {
  let best = 0;
  for (let c = 1; c < centres.length; c++)
    if (spreadsApart(centres[c], alt) < spreadsApart(centres[best], alt)) best = c;
  return best;
}
