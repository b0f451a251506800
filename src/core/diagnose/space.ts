import type { Board, PartKind } from '../board';
import { OUTSIDE, historyFactorOf, type Fault, type HistoryFlag } from './faults';
import { DEAD_ON_ARRIVAL, DOUBLE_SHARE, type JobPractice } from './practice';
import type { TestTable } from './outcome-partition';

/** The hypotheses that still count, in three lists of the same length: singles first, then pairs by their first fault. */
export interface Likely {
  readonly singles: number;
  readonly first: Uint16Array;
  /** The second fault, or the number of faults where there is none. */
  readonly second: Uint16Array;
  readonly p: Float64Array;
}

/** Hypotheses below this are left out of {@link Likely}: on the demo boards all of them together stay below 0.1 % (measured). */
const LEAST_LIKELY = 1e-7;

/**
 * Every single fault and every pair of faults of different parts. A hypothesis has a number: first the singles in the
 * faults' order, then the pairs (i, j), i < j, row after row.
 */
export class HypothesisSpace {
  readonly size: number;
  private readonly n: number;
  private readonly gathered = new WeakMap<Likely, Map<Uint16Array, Float64Array>>();

  constructor(readonly faults: readonly Fault[]) {
    this.n = faults.length;
    this.size = this.n + (this.n * (this.n - 1)) / 2;
  }

  /** Calls with each hypothesis: its number and its one or two faults; `second` is −1 for a single. */
  forEach(visit: (hypothesis: number, first: number, second: number) => void): void {
    const { n } = this;
    for (let i = 0; i < n; i++) visit(i, i, -1);
    let h = n;
    for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) visit(h++, i, j);
  }

  /** Probabilities before any reading: singles by their weights, pairs by the product, new parts by their own rate. */
  prior(board: Board, history: readonly HistoryFlag[], practice: JobPractice): Float64Array {
    const kindOf = new Map<string, PartKind>(board.parts.map((p) => [p.ref, p.kind]));
    const { faults } = this;
    const weights = faults.map((f) => f.weight * historyFactorOf(f, kindOf.get(f.ref), history, practice));
    const total = sum(weights.filter((_, i) => !faults[i].fresh));
    const freshTotal = new Map<string, number>();
    faults.forEach((f, i) => {
      if (f.fresh) freshTotal.set(f.ref, (freshTotal.get(f.ref) ?? 0) + weights[i]);
    });
    const deadOnArrival = practice.deadOnArrival ?? DEAD_ON_ARRIVAL;
    const share = faults.map((f, i) =>
      f.fresh ? (deadOnArrival * weights[i]) / freshTotal.get(f.ref)! : weights[i] / total,
    );
    const nothing = faults.findIndex((f) => f.id === OUTSIDE);
    const p = new Float64Array(this.size);
    const doubles = practice.doubleShare ?? DOUBLE_SHARE;
    let pairs = 0;
    this.forEach((h, i, j) => {
      if (j < 0) {
        p[h] = faults[i].fresh ? share[nothing] * share[i] : (1 - doubles) * share[i];
        return;
      }
      const [a, b] = [faults[i], faults[j]];
      if (i === nothing || j === nothing || (a.fresh && b.fresh)) return;
      if (a.fresh !== b.fresh) p[h] = share[i] * share[j];
      else if (a.ref !== b.ref) pairs += p[h] = share[i] * share[j];
    });
    const scale = doubles / pairs;
    let all = 0;
    this.forEach((h, i, j) => {
      if (j >= 0 && !faults[i].fresh && !faults[j].fresh) p[h] *= scale;
      all += p[h];
    });
    for (let h = 0; h < p.length; h++) p[h] /= all;
    return p;
  }

  /** Multiplies by the likelihood of a reading, one figure per row of its table, and normalises. */
  update(p: Float64Array, { keyOf, keys, rowOf }: TestTable, likelihood: Float64Array): void {
    const { n } = this;
    let total = 0;
    for (let i = 0; i < n; i++) total += p[i] *= likelihood[rowOf[keyOf[i] * keys]];
    let h = n;
    for (let i = 0; i < n; i++) {
      const base = keyOf[i] * keys;
      for (let j = i + 1; j < n; j++, h++) total += p[h] *= likelihood[rowOf[base + keyOf[j]]];
    }
    for (h = 0; h < p.length; h++) p[h] /= total;
  }

  /** The hypotheses that are not as good as ruled out: after a few readings a small share of all. */
  likely(p: Float64Array, least = LEAST_LIKELY): Likely {
    let count = 0;
    for (let h = 0; h < p.length; h++) if (p[h] >= least) count++;
    const first = new Uint16Array(count);
    const second = new Uint16Array(count);
    const chance = new Float64Array(count);
    let at = 0;
    let singles = 0;
    this.forEach((h, i, j) => {
      if (p[h] < least) return;
      if (j < 0) singles++;
      first[at] = i;
      second[at] = j < 0 ? this.n : j;
      chance[at++] = p[h];
    });
    return { singles, first, second, p: chance };
  }

  /** Row of each likely hypothesis in a table. */
  likelyRows({ first, second, singles }: Likely, { keyOf, keys, rowOf }: TestTable): Uint16Array {
    const rows = new Uint16Array(first.length);
    for (let k = 0; k < singles; k++) rows[k] = rowOf[keyOf[first[k]] * keys];
    for (let k = singles; k < rows.length; k++) rows[k] = rowOf[keyOf[first[k]] * keys + keyOf[second[k]]];
    return rows;
  }

  /** Probability of each row of a table, over the likely hypotheses. */
  likelyRowMass(likely: Likely, { keyOf, keys, rowOf, rows }: TestTable): Float64Array {
    const pairs = this.keyMass(likely, keyOf, keys);
    const mass = new Float64Array(rows.length);
    for (let k = 0; k < pairs.length; k++) if (pairs[k] > 0) mass[rowOf[k]] += pairs[k];
    return mass;
  }

  /** Probability of each pair of keys: many tests share their keys, so that the hypotheses are gone through once for all. */
  private keyMass(likely: Likely, keyOf: Uint16Array, keys: number): Float64Array {
    let kept = this.gathered.get(likely);
    if (!kept) this.gathered.set(likely, (kept = new Map<Uint16Array, Float64Array>()));
    let pairs = kept.get(keyOf);
    if (pairs) return pairs;
    kept.set(keyOf, (pairs = new Float64Array(keys * keys)));
    const { first, second, singles, p } = likely;
    for (let k = 0; k < singles; k++) pairs[keyOf[first[k]] * keys] += p[k];
    for (let k = singles; k < p.length; k++) pairs[keyOf[first[k]] * keys + keyOf[second[k]]] += p[k];
    return pairs;
  }

  /** Probability of each row of a table. */
  rowMass(p: Float64Array, { keyOf, keys, rowOf, rows }: TestTable): Float64Array {
    const { n } = this;
    const mass = new Float64Array(rows.length);
    for (let i = 0; i < n; i++) mass[rowOf[keyOf[i] * keys]] += p[i];
    let h = n;
    for (let i = 0; i < n; i++) {
      const base = keyOf[i] * keys;
      for (let j = i + 1; j < n; j++, h++) mass[rowOf[base + keyOf[j]]] += p[h];
    }
    return mass;
  }

  /** Chance of each fault, alone or in a pair. */
  marginal(p: Float64Array): Float64Array {
    const of = new Float64Array(this.n);
    this.forEach((h, i, j) => {
      of[i] += p[h];
      if (j >= 0) of[j] += p[h];
    });
    return of;
  }
}

const sum = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0);
