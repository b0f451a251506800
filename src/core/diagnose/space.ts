import type { Board, PartKind } from '../board';
import type { FaultClasses } from './classes';
import { OUTSIDE, historyFactorOf, type Fault, type HistoryFlag } from './faults';
import { DEAD_ON_ARRIVAL, DOUBLE_SHARE, type JobPractice } from './practice';
import { kindsUnder, logLikelihoods, type Likelihoods } from './joint-likelihood';
import type { Likely } from './likely';
import type { TestTable } from './outcome-partition';

/** A set of three or four faults and its probability. */
export interface FaultSet {
  readonly faults: readonly number[];
  readonly p: number;
}

/** Hypotheses below this are left out of {@link Likely}: on the demo boards all of them together stay below 0.1 % (measured). */
const LEAST_LIKELY = 1e-7;
/** More than so many are not gone through for every test: the least likely are left out. */
const MOST_LIKELY = 60_000;

/** Stories after which faults come in company, and how much likelier one more is then. Engineering estimates. */
const COMPANY: readonly HistoryFlag[] = ['liquid', 'unknownCharger', 'earlierRepair'];
const COMPANY_FACTOR = 3;
/** One more fault is never likelier than this. */
const MOST_COMPANY = 0.5;

/** What sets of faults are worth before any reading. */
export interface SetPrior {
  /** Prior of singles and pairs, by hypothesis. */
  readonly p: Float64Array;
  /** Share of each fault: of all boards, or of all fittings. */
  readonly share: Float64Array;
  /** Share of each fault within its class. */
  readonly within: Float64Array;
  /** Prior of any set of classes of a space, in the scale of {@link p}. @param shares of the space's classes. */
  readonly ofSet: (faults: readonly number[], of: HypothesisSpace, shares: Float64Array) => number;
}

/**
 * Every single fault and every pair of faults of different parts, by classes of faults that are alike. A hypothesis has a
 * number: first the singles in the classes' order, then the pairs (i, j), i < j, row after row, then each class of several
 * faults twice: two of its faults at once.
 */
export class HypothesisSpace {
  readonly size: number;
  /** The fault that stands for each class. */
  readonly standsFor: Uint16Array;
  private readonly n: number;
  /** Classes of several faults: two of them can be there at once. */
  private readonly several: readonly number[];

  constructor(
    readonly faults: readonly Fault[],
    readonly classes: FaultClasses,
  ) {
    const { members } = classes;
    this.n = members.length;
    this.standsFor = Uint16Array.from(members, ([first]) => first);
    this.several = [...members.keys()].filter((c) => members[c].length > 1);
    this.size = this.n + (this.n * (this.n - 1)) / 2 + this.several.length;
  }

  /** Calls with each hypothesis: its number and its one or two faults, each standing for its class; `second` is −1 for a single. */
  forEach(visit: (hypothesis: number, first: number, second: number) => void): void {
    const { n, standsFor } = this;
    for (let i = 0; i < n; i++) visit(i, standsFor[i], -1);
    let h = n;
    for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) visit(h++, standsFor[i], standsFor[j]);
    for (const c of this.several) visit(h++, standsFor[c], standsFor[c]);
  }

  /**
   * Probabilities before any reading: singles by their weights, pairs by the product, new parts by their own rates,
   * unlisted faults by their own share.
   */
  prior(board: Board, history: readonly HistoryFlag[], practice: JobPractice): SetPrior {
    const { faults, classes } = this;
    const share = this.shares(board, history, practice);
    const ofClass = this.classShares(share);
    const within = Float64Array.from(share, (s, f) => (s > 0 ? s / ofClass[classes.of[f]] : 0));
    const isNew = Uint8Array.from(this.standsFor, (f) => Number(faults[f].fitting !== undefined));
    const nothing = classes.of[faults.findIndex((f) => f.id === OUTSIDE)];
    const doubles = practice.doubleShare ?? DOUBLE_SHARE;
    const sameParts = this.sharedParts(share);
    const product = (i: number, j: number): number => Math.max(0, ofClass[i] * ofClass[j] - sameParts(i, j));
    const p = new Float64Array(this.size);
    const sound = (1 - doubles) * ofClass[nothing];
    let pairs = 0;
    this.forEachClass((h, i, j) => {
      if (j < 0) p[h] = isNew[i] ? sound * ofClass[i] : (1 - doubles) * ofClass[i];
      else if (i === nothing || j === nothing) return;
      else if (isNew[i] && isNew[j]) p[h] = sound * product(i, j);
      else if (isNew[i] || isNew[j]) p[h] = (1 - doubles) * ofClass[i] * ofClass[j];
      else pairs += p[h] = i === j ? product(i, j) / 2 : product(i, j);
    });
    const scale = pairs > 0 ? doubles / pairs : 0;
    let all = 0;
    this.forEachClass((h, i, j) => {
      if (j >= 0 && !isNew[i] && !isNew[j]) p[h] *= scale;
      all += p[h];
    });
    for (let h = 0; h < p.length; h++) p[h] /= all;
    const company = history.some((flag) => COMPANY.includes(flag)) ? COMPANY_FACTOR : 1;
    const oneMore = Math.min(MOST_COMPANY, doubles * company);
    const olds = [...ofClass.keys()].filter((c) => !isNew[c] && c !== nothing).map((c) => ofClass[c]);
    const [, , , three, four] = symmetricSums(olds);
    const weightOf = [ofClass[nothing] * (1 - doubles), 1 - doubles, scale, (doubles * oneMore) / three];
    weightOf.push((doubles * oneMore ** 2) / four);
    const ofSet = (set: readonly number[], of: HypothesisSpace, shares: Float64Array): number => {
      const old = set.filter((f) => faults[f].fitting === undefined);
      if (set.length > 1 && old.some((f) => faults[f].id === OUTSIDE)) return 0;
      return (weightOf[old.length] * set.reduce((product, f) => product * shares[of.classes.of[f]], 1)) / all;
    };
    return { p, share, within, ofSet };
  }

  /** Share of each fault: of all boards for those it came with, of all fittings for those of a new part. */
  private shares(board: Board, history: readonly HistoryFlag[], practice: JobPractice): Float64Array {
    const { faults } = this;
    const kindOf = new Map<string, PartKind>(board.parts.map((p) => [p.ref, p.kind]));
    const weights = faults.map((f) => f.weight * historyFactorOf(f, kindOf.get(f.ref), history, practice));
    const isListed = (f: Fault): boolean => f.fitting === undefined && f.unlistedAt === undefined;
    const total = sum(weights.filter((_, i) => isListed(faults[i])));
    const grown = practice.unlisted ?? 1;
    const unlisted = grown * sum(faults.map((f) => (f.unlistedAt === undefined ? 0 : f.weight)));
    const dead = practice.deadOnArrival ?? DEAD_ON_ARRIVAL;
    return Float64Array.from(faults, (f, i) => {
      if (f.unlistedAt !== undefined) return grown * f.weight;
      if (f.fitting !== undefined) return f.rate! * (dead / DEAD_ON_ARRIVAL);
      return ((1 - unlisted) * weights[i]) / total;
    });
  }

  /** Share of pairs within two classes that are of one part: those are one hypothesis, not two faults. */
  private sharedParts(share: Float64Array, only?: ReadonlySet<number>): (i: number, j: number) => number {
    const { faults, classes, n } = this;
    const byPart = new Map<string, Map<number, number>>();
    faults.forEach((f, i) => {
      if (only && !only.has(i)) return;
      const part = f.ref === '' ? f.id : `${f.ref} ${f.fitting ?? ''}`;
      let own = byPart.get(part);
      if (!own) byPart.set(part, (own = new Map<number, number>()));
      own.set(classes.of[i], (own.get(classes.of[i]) ?? 0) + share[i]);
    });
    const shared = new Map<number, number>();
    for (const own of byPart.values())
      for (const [a, x] of own)
        for (const [b, y] of own) if (a <= b) shared.set(a * n + b, (shared.get(a * n + b) ?? 0) + x * y);
    return (i, j) => shared.get(i < j ? i * n + j : j * n + i) ?? 0;
  }

  /** Share of each class. */
  classShares(share: Float64Array): Float64Array {
    const of = new Float64Array(this.n);
    share.forEach((s, f) => (of[this.classes.of[f]] += s));
    return of;
  }

  /**
   * Probabilities of another space, whose classes hold those of this one, spread over the classes here: by the shares of the
   * faults, since nothing told them apart so far.
   */
  spreadFrom(wide: HypothesisSpace, p: Float64Array, share: Float64Array): Float64Array {
    const [own, whole] = [this.classShares(share), wide.classShares(share)];
    const { n } = this;
    const wideOf = Uint16Array.from(this.standsFor, (f) => wide.classes.of[f]);
    const part = Float64Array.from(own, (s, c) => (s > 0 ? s / whole[wideOf[c]] : 0));
    const out = new Float64Array(this.size);
    for (let i = 0; i < n; i++) out[i] = p[wideOf[i]] * part[i];
    let h = n;
    for (let i = 0; i < n; i++) {
      const a = wideOf[i];
      for (let j = i + 1; j < n; j++, h++)
        if (wideOf[j] !== a) out[h] = p[wide.pairAt(a, wideOf[j])] * part[i] * part[j];
    }
    wide.several.forEach((c, k) => this.spreadTwice(out, wide, c, p[wide.twiceFrom + k], own, share));
    return out;
  }

  /** Two faults of one wide class: its classes here two by two, those of one part left out. */
  private spreadTwice(
    out: Float64Array,
    wide: HypothesisSpace,
    wideClass: number,
    p: number,
    own: Float64Array,
    share: Float64Array,
  ): void {
    const classes = [...new Set(wide.classes.members[wideClass].map((f) => this.classes.of[f]))];
    const shared = this.sharedParts(share, new Set(wide.classes.members[wideClass]));
    const product = (i: number, j: number): number => Math.max(0, own[i] * own[j] - shared(i, j)) / (i === j ? 2 : 1);
    const pairs = classes.flatMap((i, k) => classes.slice(k).map((j) => [i, j, product(i, j)] as const));
    const all = pairs.reduce((sum, [, , weight]) => sum + weight, 0);
    if (all === 0) return;
    for (const [i, j, weight] of pairs) {
      const h = i === j ? this.twiceFrom + this.several.indexOf(i) : this.pairAt(i, j);
      if (i !== j || this.several.includes(i)) out[h] = (p * weight) / all;
    }
  }

  /** Number of the first hypothesis of two faults of one class. */
  private get twiceFrom(): number {
    return this.n + (this.n * (this.n - 1)) / 2;
  }

  /** Number of the hypothesis of two different classes. */
  private pairAt(a: number, b: number): number {
    const i = Math.min(a, b);
    const j = Math.max(a, b);
    return this.n + i * this.n - (i * (i + 1)) / 2 + (j - i - 1);
  }

  private forEachClass(visit: (hypothesis: number, first: number, second: number) => void): void {
    const { n } = this;
    for (let i = 0; i < n; i++) visit(i, i, -1);
    let h = n;
    for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) visit(h++, i, j);
    for (const c of this.several) visit(h++, c, c);
  }

  /** Keys of the classes in a table. */
  private classKeys({ keyOf }: Pick<TestTable, 'keyOf'>): Uint16Array {
    return this.standsFor.map((f) => keyOf[f]);
  }

  /**
   * Multiplies by the likelihoods of several readings, each one figure per row of its table, and normalises. Classes that no
   * reading tells apart are gone through as one. Gives the logarithm of what it came to.
   */
  updateAll(p: Float64Array, readings: readonly Likelihoods[]): number {
    if (readings.length === 0) return 0;
    const { n, several } = this;
    const { kindOf, kinds } = kindsUnder(
      this.standsFor,
      readings.map(({ table }) => table),
    );
    const { single, pair } = logLikelihoods(
      readings,
      kinds.map((c) => this.standsFor[c]),
    );
    const most = pair.reduce((m, v) => Math.max(m, v), Math.max(...single));
    const factor = pair.map((v) => Math.exp(v - most));
    let total = 0;
    for (let i = 0; i < n; i++) total += p[i] *= Math.exp(single[kindOf[i]] - most);
    let h = n;
    for (let i = 0; i < n; i++) {
      const base = kindOf[i] * kinds.length;
      for (let j = i + 1; j < n; j++, h++) total += p[h] *= factor[base + kindOf[j]];
    }
    for (const c of several) total += p[h++] *= factor[kindOf[c] * (kinds.length + 1)];
    for (h = 0; h < p.length; h++) p[h] /= total;
    return Math.log(total) + most;
  }

  /** Multiplies by the likelihood of a reading, one figure per row of its table, and normalises. Gives what it came to. */
  update(p: Float64Array, table: Pick<TestTable, 'keyOf' | 'keys' | 'rowOf'>, likelihood: ArrayLike<number>): number {
    const { n } = this;
    const { keys, rowOf } = table;
    const keyOf = this.classKeys(table);
    let total = 0;
    for (let i = 0; i < n; i++) total += p[i] *= likelihood[rowOf[keyOf[i] * keys]];
    let h = n;
    for (let i = 0; i < n; i++) {
      const base = keyOf[i] * keys;
      for (let j = i + 1; j < n; j++, h++) total += p[h] *= likelihood[rowOf[base + keyOf[j]]];
    }
    for (const c of this.several) total += p[h++] *= likelihood[rowOf[keyOf[c] * keys + keyOf[c]]];
    for (h = 0; h < p.length; h++) p[h] /= total;
    return total;
  }

  /** The hypotheses that are not as good as ruled out: after a few readings a small share of all. */
  likely(p: Float64Array, least = LEAST_LIKELY, sets: readonly FaultSet[] = []): Likely {
    const from = least === 0 ? 0 : this.cut(p, least);
    let count = 0;
    for (let h = 0; h < p.length; h++) if (p[h] >= from) count++;
    const kept = sets.filter((s) => s.p >= from);
    const first = new Uint16Array(count + kept.length);
    const second = new Uint16Array(count + kept.length);
    const chance = new Float64Array(count + kept.length);
    let at = 0;
    let singles = 0;
    this.forEach((h, i, j) => {
      if (p[h] < from) return;
      if (j < 0) singles++;
      first[at] = i;
      second[at] = j < 0 ? this.faults.length : j;
      chance[at++] = p[h];
    });
    for (const s of kept) {
      [first[at], second[at]] = s.faults;
      chance[at++] = s.p;
    }
    return { singles, pairsEnd: count, first, second, sets: kept.map((s) => s.faults), p: chance };
  }

  /** From where on hypotheses are followed: no more than there is time for. */
  private cut(p: Float64Array, least: number): number {
    let from = least;
    for (let count = Infinity; count > MOST_LIKELY; from *= 2) {
      count = 0;
      for (let h = 0; h < p.length; h++) if (p[h] >= from) count++;
      if (count <= MOST_LIKELY) break;
    }
    return from;
  }

  /** Probability of each row of a table, singles and pairs. */
  rowMass(p: Float64Array, table: TestTable): Float64Array {
    const { n } = this;
    const { keys, rowOf, rows } = table;
    const keyOf = this.classKeys(table);
    const mass = new Float64Array(rows.length);
    for (let i = 0; i < n; i++) mass[rowOf[keyOf[i] * keys]] += p[i];
    let h = n;
    for (let i = 0; i < n; i++) {
      const base = keyOf[i] * keys;
      for (let j = i + 1; j < n; j++, h++) mass[rowOf[base + keyOf[j]]] += p[h];
    }
    for (const c of this.several) mass[rowOf[keyOf[c] * keys + keyOf[c]]] += p[h++];
    return mass;
  }

  /**
   * Probability of each row over the hypotheses without any of some faults.
   * @param mass of each row over all of them. @param isSome 1 for those faults.
   */
  rowMassWithout(mass: Float64Array, p: Float64Array, table: TestTable, isSome: Uint8Array): Float64Array {
    const { n, standsFor } = this;
    const { keys, rowOf } = table;
    const keyOf = this.classKeys(table);
    const rest = mass.slice();
    for (let i = 0; i < n; i++) {
      if (!isSome[standsFor[i]]) continue;
      const base = keyOf[i] * keys;
      rest[rowOf[base]] -= p[i];
      // A pair of two of them is taken with its first.
      for (let j = 0; j < i; j++) if (!isSome[standsFor[j]]) rest[rowOf[base + keyOf[j]]] -= p[this.pairAt(j, i)];
      for (let j = i + 1, h = this.pairAt(i, i + 1); j < n; j++, h++) rest[rowOf[base + keyOf[j]]] -= p[h];
    }
    this.several.forEach((c, k) => {
      if (isSome[standsFor[c]]) rest[rowOf[keyOf[c] * keys + keyOf[c]]] -= p[this.twiceFrom + k];
    });
    return rest.map((v) => Math.max(0, v));
  }

  /** Chance of each class, alone or with others; two faults of one class count twice. */
  classMarginal(p: Float64Array, sets: readonly FaultSet[] = []): Float64Array {
    const of = new Float64Array(this.n);
    this.forEachClass((h, i, j) => {
      of[i] += p[h];
      if (j >= 0) of[j] += p[h];
    });
    for (const s of sets) for (const f of s.faults) of[this.classes.of[f]] += s.p;
    return of;
  }

  /** Chance of each fault, alone or with others: of its class, by its share in it. */
  marginal(p: Float64Array, within: Float64Array, sets: readonly FaultSet[] = []): Float64Array {
    const ofClass = this.classMarginal(p, sets);
    return within.map((share, f) => share * ofClass[this.classes.of[f]]);
  }
}

/** Elementary symmetric sums of up to four factors: Σ1, Σx, Σxy, Σxyz, Σxyzw over different entries (Newton's identities). */
function symmetricSums(list: readonly number[]): number[] {
  const e = [1, 0, 0, 0, 0];
  for (const x of list) for (let k = 4; k >= 1; k--) e[k] += x * e[k - 1];
  return e;
}

const sum = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0);
