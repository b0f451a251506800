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
    const [i, j] = a < b ? [a, b] : [b, a];
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
    this.meetOwnKeys(likely, table, of, mass);
    setRows.forEach((row, k) => (mass[row] += likely.p[likely.pairsEnd + k]));
    return mass;
  }

  /** Moves the hypotheses whose faults are met in a way of their own from the plain rows to their own ones. */
  private meetOwnKeys(likely: Likely, table: TestTable, of: FaultIndex, mass: Float64Array): void {
    const { met, keyOf, keys, rowOf, plainKeyOf } = table;
    const { first, second, p } = likely;
    const none = this.faults.length;
    const row = (key: Uint16Array, k: number): number =>
      rowOf[key[first[k]] * keys + (second[k] === none ? 0 : key[second[k]])];
    for (const f of met) {
      for (let at = of.from[f]; at < of.from[f + 1]; at++) {
        const k = of.hypotheses[at];
        // A pair of two such faults is moved with its first.
        if (second[k] === f && first[k] !== f && keyOf[first[k]] !== plainKeyOf[first[k]]) continue;
        mass[row(plainKeyOf, k)] -= p[k];
        mass[row(keyOf, k)] += p[k];
      }
    }
  }

  /** Probability of each pair of a partition's keys: many tests share them, so that the hypotheses are gone through once for all. */
  private gather(likely: Likely, { plainKeyOf: keyOf, plainKeys: keys }: TestTable): Gathered {
    let kept = this.gathered.get(likely);
    if (!kept) this.gathered.set(likely, (kept = { of: indexFaults(likely, this.faults.length), byKeys: new Map() }));
    const { of, byKeys } = kept;
    let found = byKeys.get(keyOf);
    if (!found) {
      const all = roomFor(keys * keys);
      const { first, second, singles, pairsEnd, p } = likely;
      const seen = new Uint32Array(pairsEnd);
      let count = 0;
      for (let k = 0; k < pairsEnd; k++) {
        const cell = keyOf[first[k]] * keys + (k < singles ? 0 : keyOf[second[k]]);
        if (all[cell] === 0) seen[count++] = cell;
        all[cell] += p[k];
      }
      // In ascending order: the sums behind them are then the same to the last digit, whichever hypothesis came first.
      const cells = seen.slice(0, count).sort();
      const pairs = new Float64Array(count);
      for (let n = 0; n < count; n++) {
        pairs[n] = all[cells[n]];
        all[cells[n]] = 0;
      }
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

let room = new Float64Array(0);

/** Zeros to add up in, at least so many; whoever fills them leaves them zero again. */
function roomFor(cells: number): Float64Array {
  if (room.length < cells) room = new Float64Array(cells);
  return room;
}

/** Pairs of keys that any likely hypothesis has, as a · keys + b, with their probability. */
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
