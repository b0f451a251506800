import type { Board, PartKind } from '../board';
import type { FaultClasses } from './classes';
import { OUTSIDE, historyFactorOf, type Fault, type HistoryFlag } from './faults';
import { DEAD_ON_ARRIVAL, DOUBLE_SHARE, type JobPractice } from './practice';
import { indexFaults, type FaultIndex } from './fault-index';
import type { TestTable } from './outcome-partition';

/** The hypotheses that still count: singles first, then pairs, then sets of three and four. Faults stand for their classes. */
export interface Likely {
  readonly singles: number;
  /** Singles and pairs together; what follows are sets. */
  readonly pairsEnd: number;
  readonly first: Uint16Array;
  /** The second fault, or the number of faults where there is none. */
  readonly second: Uint16Array;
  /** The faults of the sets, in the order of what follows the pairs. */
  readonly sets: readonly (readonly number[])[];
  readonly p: Float64Array;
}

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
  private readonly gathered = new WeakMap<Likely, { of: FaultIndex; byKeys: Map<Uint16Array, Omit<Gathered, 'of'>> }>();

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
    const { kindOf, kinds } = this.kindsUnder(readings.map(({ table }) => table));
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

  /** Classes by their keys in several tables: the kind of each class, and one class of each kind. */
  private kindsUnder(tables: readonly Pick<TestTable, 'keyOf'>[]): { kindOf: Uint16Array; kinds: number[] } {
    const kindOf = new Uint16Array(this.n);
    let kinds = [0];
    for (const { keyOf } of new Set(tables)) {
      const numbers = new Map<number, number>();
      kinds = [];
      this.standsFor.forEach((f, c) => {
        const name = kindOf[c] * 65536 + keyOf[f];
        let number = numbers.get(name);
        if (number === undefined) {
          numbers.set(name, (number = kinds.length));
          kinds.push(c);
        }
        kindOf[c] = number;
      });
    }
    return { kindOf, kinds };
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

  /** Numbers of the likely hypotheses with one of some faults. @param isSome 1 for those, by fault; 0 behind the last. */
  hypothesesOf({ first, second, pairsEnd, sets }: Likely, isSome: Uint8Array): number[] {
    const found: number[] = [];
    for (let k = 0; k < pairsEnd; k++) if (isSome[first[k]] || isSome[second[k]]) found.push(k);
    sets.forEach((set, k) => set.some((f) => isSome[f]) && found.push(pairsEnd + k));
    return found;
  }

  /** Row of one likely hypothesis in a table. */
  rowOf({ first, second, singles, pairsEnd, sets }: Likely, table: TestTable, k: number): number {
    const { keyOf, keys, rowOf } = table;
    if (k < singles) return rowOf[keyOf[first[k]] * keys];
    if (k < pairsEnd) return rowOf[keyOf[first[k]] * keys + keyOf[second[k]]];
    return table.rowOfAll(sets[k - pairsEnd].map((f) => keyOf[f]));
  }

  /** Row of each likely hypothesis in a table. */
  likelyRows({ first, second, singles, pairsEnd, sets }: Likely, table: TestTable): Uint32Array {
    const { keyOf, keys, rowOf } = table;
    const rows = new Uint32Array(first.length);
    for (let k = 0; k < singles; k++) rows[k] = rowOf[keyOf[first[k]] * keys];
    for (let k = singles; k < pairsEnd; k++) rows[k] = rowOf[keyOf[first[k]] * keys + keyOf[second[k]]];
    sets.forEach((set, k) => (rows[pairsEnd + k] = table.rowOfAll(set.map((f) => keyOf[f]))));
    return rows;
  }

  /** Probability of each row of a table, over the likely hypotheses. */
  likelyRowMass(likely: Likely, table: TestTable): Float64Array {
    const { keyOf, keys, rowOf, plainKeys } = table;
    const setRows = likely.sets.map((set) => table.rowOfAll(set.map((f) => keyOf[f])));
    const mass = new Float64Array(table.rows.length);
    const { cells, pairs, of } = this.gather(likely, table);
    for (let n = 0; n < cells.length; n++) {
      const b = cells[n] % plainKeys;
      mass[rowOf[((cells[n] - b) / plainKeys) * keys + b]] += pairs[n];
    }
    this.meetOwnKeys(table, of, mass);
    setRows.forEach((row, k) => (mass[row] += likely.p[likely.pairsEnd + k]));
    return mass;
  }

  /** Moves the hypotheses whose faults are met in a way of their own from the plain rows to their own ones. */
  private meetOwnKeys(table: TestTable, { from, other, p }: FaultIndex, mass: Float64Array): void {
    const { met, keyOf, keys, rowOf, plainKeyOf } = table;
    const none = this.faults.length;
    for (const f of met) {
      const [plain, own] = [plainKeyOf[f] * keys, keyOf[f] * keys];
      for (let at = from[f]; at < from[f + 1]; at++) {
        const g = other[at];
        // A pair of two such faults is moved with its first.
        if (g < f && keyOf[g] !== plainKeyOf[g]) continue;
        mass[rowOf[plain + (g === none ? 0 : plainKeyOf[g])]] -= p[at];
        mass[rowOf[own + (g === none ? 0 : keyOf[g])]] += p[at];
      }
    }
  }

  /**
   * Probability of each pair of a partition's keys: many tests share them, so that the hypotheses are gone through once for
   * all, and of those only the ones with a fault that the partition tells from none.
   */
  private gather(likely: Likely, { plainKeyOf: keyOf, plainKeys: keys }: TestTable): Gathered {
    let kept = this.gathered.get(likely);
    if (!kept) this.gathered.set(likely, (kept = { of: indexFaults(likely, this.faults.length), byKeys: new Map() }));
    const { of, byKeys } = kept;
    let found = byKeys.get(keyOf);
    if (!found) {
      const { from, other, p, total } = of;
      const none = this.faults.length;
      const all = roomFor(keys * keys);
      const seen: number[] = [];
      let told = 0;
      for (let f = 0; f < none; f++) {
        const key = keyOf[f];
        if (key === 0) continue;
        for (let at = from[f]; at < from[f + 1]; at++) {
          const g = other[at];
          const second = g === none ? 0 : keyOf[g];
          // A pair of two such faults counts with its first.
          if (second !== 0 && g < f) continue;
          const cell = key > second ? key * keys + second : second * keys + key;
          if (all[cell] === 0 && p[at] > 0) seen.push(cell);
          all[cell] += p[at];
          told += p[at];
        }
      }
      all[0] = Math.max(0, total - told);
      // In ascending order: the sums behind them are then the same to the last digit, whichever hypothesis came first.
      const cells = Uint32Array.from([0, ...seen]).sort();
      const pairs = Float64Array.from(cells, (cell) => all[cell]);
      for (const cell of cells) all[cell] = 0;
      byKeys.set(keyOf, (found = { cells, pairs }));
    }
    return { ...found, of };
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

/** A reading is never ruled out altogether: below this its logarithm would be none. */
const LEAST_LIKELIHOOD = 1e-300;

/**
 * Logarithms of what all readings say to each fault of a list, and to each pair of them as a · length + b. A fault that a
 * reading does not see leaves it as it is: only pairs of two that it sees are looked up.
 */
function logLikelihoods(
  readings: readonly Likelihoods[],
  faults: readonly number[],
): { single: Float64Array; pair: Float64Array } {
  const n = faults.length;
  const single = new Float64Array(n);
  const pair = new Float64Array(n * n);
  let sound = 0;
  for (const { table, likelihood } of readings) {
    const { keyOf, keys, rowOf } = table;
    const byRow = likelihood.map((l) => Math.log(Math.max(l, LEAST_LIKELIHOOD)));
    const base = faults.map((f) => keyOf[f] * keys);
    const none = byRow[rowOf[0]];
    const alone = base.map((at) => byRow[rowOf[at]]);
    const seen = [...faults.keys()].filter((a) => base[a] !== 0);
    sound += none;
    for (let a = 0; a < n; a++) single[a] += alone[a];
    for (const a of seen)
      for (const b of seen) {
        if (b > a) break;
        pair[a * n + b] += byRow[rowOf[base[a] + keyOf[faults[b]]]] - alone[a] - alone[b] + none;
      }
  }
  for (let a = 0; a < n; a++)
    for (let b = 0; b <= a; b++) {
      const both = pair[a * n + b] + single[a] + single[b] - sound;
      pair[a * n + b] = both;
      pair[b * n + a] = both;
    }
  return { single, pair };
}

let room = new Float64Array(0);

/** Zeros to add up in, at least so many; whoever fills them leaves them zero again. */
function roomFor(cells: number): Float64Array {
  if (room.length < cells) room = new Float64Array(cells);
  return room;
}

/** What a reading says to the rows of its table. */
interface Likelihoods {
  readonly table: Pick<TestTable, 'keyOf' | 'keys' | 'rowOf'>;
  readonly likelihood: Float64Array;
}

/** Pairs of keys that any likely hypothesis has, as a · keys + b with a ≥ b, with their probability. */
interface Gathered {
  readonly cells: Uint32Array;
  readonly pairs: Float64Array;
  readonly of: FaultIndex;
}

/** Elementary symmetric sums of up to four factors: Σ1, Σx, Σxy, Σxyz, Σxyzw over different entries (Newton's identities). */
function symmetricSums(list: readonly number[]): number[] {
  const e = [1, 0, 0, 0, 0];
  for (const x of list) for (let k = 4; k >= 1; k--) e[k] += x * e[k - 1];
  return e;
}

const sum = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0);
