import { anywhereShare, type Alternative, type Prediction } from './prediction';
import type { Value } from './value';

/** A class of readings that cannot be told apart at the bench. */
export interface OutcomeClass {
  /** Centre of the class, one figure per dimension (ohms as log10); empty where the answer is no figure. */
  readonly means: readonly number[];
  /** Spreads of the centre, where it is a figure. */
  readonly sds?: readonly number[];
  /** The answer, where it is no figure. */
  readonly answer?: Value;
  /** True for readings that are like none of the other classes. */
  readonly unlike?: boolean;
  /** Chance of it by row. It is exchanged for a longer one when the table gets rows. */
  given: Float64Array;
}

/** Means closer than this many spreads count as the same reading. */
const SAME_WITHIN_SPREADS = 3;

/** Sorts the possible readings of a test into classes; rows that may read anything add a class of what is like no other. */
export function classify(rows: readonly Prediction[]): OutcomeClass[] {
  const classes = centresOf(rows);
  rows.forEach((_, row) => sortInto(classes, rows, row));
  return classes.filter((o) => o.given.some((g) => g > 0));
}

function centresOf(rows: readonly Prediction[]): OutcomeClass[] {
  const given = (): Float64Array => new Float64Array(rows.length);
  const [first] = rows;
  if (first.kind === 'verdict')
    return [
      { means: [], answer: { kind: 'pass' }, given: given() },
      { means: [], answer: { kind: 'fail' }, given: given() },
    ];
  if (first.kind === 'choice')
    return Object.keys(first.chance).map((choice) => ({
      means: [],
      answer: { kind: 'choice', choice },
      given: given(),
    }));
  const centres = cluster(alternativesOf(rows)).map(({ means, sds }) => ({ means, sds, given: given() }));
  const anyBroad = rows.some((row) => anywhereShare(row) > 0);
  return anyBroad ? [...centres, { means: [], unlike: true, given: given() }] : centres;
}

/** Different alternatives of rows, in their order. */
export function alternativesOf(rows: readonly Prediction[]): Alternative[] {
  const all = rows.flatMap((row) => (row.kind === 'values' ? row.alternatives : []));
  return [...new Map(all.map((alt) => [meansKey(alt), alt])).values()];
}

/** Share of a broad reading that falls beside every class. Engineering estimate: what is unlisted mostly reads oddly. */
const UNLIKE_SHARE = 0.5;

/** Gives a row its chances of the classes. */
export function sortInto(classes: readonly OutcomeClass[], rows: readonly Prediction[], row: number): void {
  for (const o of classes) {
    if (o.given.length > row) continue;
    const longer = new Float64Array(2 * row + 1);
    longer.set(o.given);
    o.given = longer;
  }
  const prediction = rows[row];
  for (const o of classes) {
    if (o.answer === undefined) continue;
    if (prediction.kind === 'verdict')
      o.given[row] = o.answer.kind === 'fail' ? prediction.failChance : 1 - prediction.failChance;
    if (prediction.kind === 'choice' && o.answer.kind === 'choice') o.given[row] = prediction.chance[o.answer.choice];
  }
  if (prediction.kind !== 'values') return;
  const centres = classes.filter((o) => !o.unlike);
  for (const alt of prediction.alternatives) nearest(centres, alt).given[row] += alt.weight;
  const broad = anywhereShare(prediction);
  if (broad === 0) return;
  const unlike = classes.find((o) => o.unlike);
  if (unlike) unlike.given[row] += broad * UNLIKE_SHARE;
  for (const o of centres) o.given[row] += (broad * (unlike ? 1 - UNLIKE_SHARE : 1)) / centres.length;
}

const meansKey = (alt: Alternative): string => alt.means.map((m) => m.toFixed(3)).join(' ');

function cluster(distinct: readonly Alternative[]): Alternative[] {
  const centres: Alternative[] = [];
  for (const alt of [...distinct].sort((a, b) => a.means[0] - b.means[0] || (a.means[1] ?? 0) - (b.means[1] ?? 0))) {
    if (!centres.some((c) => spreadsApart(c, alt) < SAME_WITHIN_SPREADS)) centres.push(alt);
  }
  return centres;
}

type Centre = Pick<Alternative, 'means' | 'sds'>;

function spreadsApart(a: Centre, b: Centre): number {
  return Math.max(...a.means.map((m, i) => Math.abs(m - b.means[i]) / Math.max(a.sds[i], b.sds[i])));
}

function nearest(classes: readonly OutcomeClass[], alt: Alternative): OutcomeClass {
  const apart = (o: OutcomeClass): number => spreadsApart({ means: o.means, sds: o.sds! }, alt);
  let best = classes[0];
  let least = apart(best);
  for (const o of classes) {
    const own = apart(o);
    if (own < least) [best, least] = [o, own];
  }
  return best;
}
