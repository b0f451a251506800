import { alternativesOf, classify, sortInto, type OutcomeClass } from './outcome-classes';
import { broadened, seenAtTimes, type Anywhere, type Prediction } from './prediction';

/** How one test parts the faults: what distinguishes them for it, and what two of them read together. */
export interface OutcomePartition {
  readonly keyOf: Uint16Array;
  readonly keys: number;
  /** Name of the row of two keys: equal names, equal predictions. */
  readonly rowName: (a: number, b: number) => string | number;
  /** What the test reads with the effects of any number of keys. */
  readonly predict: (...keys: number[]) => Prediction;
  /** Partitions of one state of the board with the same name share their rows: twin contacts of a net, a trace and a capture. */
  readonly sharedRows?: string;
}

/** Which pairs of keys share a row, and one pair of keys for each row. */
export interface RowLayout {
  readonly rowOf: Uint16Array;
  readonly pairs: readonly (readonly [number, number])[];
}

/** Names every pair of keys; pairs of one name share a row. */
export function assignRows({ keys, rowName }: Pick<OutcomePartition, 'keys' | 'rowName'>): RowLayout {
  const rowOf = new Uint16Array(keys * keys);
  const byName = new Map<string | number, number>();
  const pairs: [number, number][] = [];
  // Neighbouring pairs mostly share a row: the last one found is tried before the map.
  let last: string | number | undefined;
  let row = 0;
  for (let a = 0; a < keys; a++) {
    for (let b = 0; b <= a; b++) {
      const name = rowName(a, b);
      if (name !== last) {
        const known = byName.get(name);
        row = known ?? pairs.length;
        last = name;
        if (known === undefined) {
          byName.set(name, row);
          pairs.push([a, b]);
        }
      }
      rowOf[a * keys + b] = row;
      rowOf[b * keys + a] = row;
    }
  }
  return { rowOf, pairs };
}

/** How a fault differs for a test from what its key says. */
export interface Marked {
  /** Reads anything where the test touches it: half as without it, or none of it as without it. */
  readonly unlisted?: 'here' | 'anywhere';
  /** Share of the readings that meet it. */
  readonly seen?: number;
}

/** What stands behind a key of a table: a key of the partition, and how it is met. */
interface Meaning extends Marked {
  readonly base: number;
}

/**
 * What one test reads under every single and double fault. Faults that are alike for this test share a key; key 0 is
 * "changes nothing here". Two keys together name a row, and each row is one prediction. Sets of three and more get their
 * rows when they are first asked for.
 */
export class TestTable {
  /** Key of each fault. */
  readonly keyOf: Uint16Array;
  readonly keys: number;
  /** rowOf[a · keys + b]: the prediction for faults with the keys a and b together; b = 0 for a alone. */
  readonly rowOf: Uint16Array;
  readonly rows: Prediction[];
  /** The readings that the test can tell apart, with their chances by row. */
  readonly classes: readonly OutcomeClass[];
  /** The partition's own keys, which many tests share. */
  readonly plainKeyOf: Uint16Array;
  readonly plainKeys: number;
  /** Faults whose key here is not the partition's own. */
  readonly met: readonly number[];
  private readonly meanings: readonly Meaning[];
  private readonly byName = new Map<string, number>();
  /** Rows of three keys and more. */
  private readonly ofMany = new Map<number, number>();
  private readonly anywhere: Anywhere;

  /**
   * @param marked how a fault is met, where that is not always and as its effects say.
   * @param touched nets at which something unlisted would show.
   */
  constructor(
    private readonly partition: OutcomePartition,
    layout: RowLayout,
    marked: (fault: number) => Marked | undefined = () => undefined,
    readonly touched: ReadonlySet<string> = new Set(),
  ) {
    this.rows = layout.pairs.map(([a, b]) => partition.predict(a, b));
    this.anywhere = anywhereOf(this.rows);
    const { keyOf, meanings, met } = meet(partition, marked);
    this.meanings = meanings;
    this.met = met;
    this.plainKeyOf = partition.keyOf;
    this.plainKeys = partition.keys;
    const keys = meanings.length;
    const plain = partition.keys;
    if (keys === plain) {
      this.keyOf = partition.keyOf;
      this.keys = keys;
      this.rowOf = layout.rowOf;
    } else {
      this.keyOf = keyOf;
      this.keys = keys;
      this.rowOf = new Uint16Array(keys * keys);
      for (let a = 0; a < keys; a++) {
        for (let b = 0; b <= a; b++) {
          const row = a < plain ? layout.rowOf[a * plain + b] : this.metRow(meanings[a], meanings[b], layout.rowOf);
          this.rowOf[a * keys + b] = row;
          this.rowOf[b * keys + a] = row;
        }
      }
    }
    this.classes = classify(this.rows);
  }

  /** Row of any number of keys together; made where there is none yet. */
  rowOfAll(keys: readonly number[]): number {
    let [a, b, seen] = [0, 0, 0];
    for (const key of keys) {
      if (key === 0) continue;
      seen++;
      if (a === 0) a = key;
      else b = key;
    }
    return seen <= 2 ? this.rowOf[a * this.keys + b] : this.rowOfMany(keys);
  }

  private rowOfMany(keys: readonly number[]): number {
    const own = keys.filter((k) => k !== 0).sort((a, b) => a - b);
    const code = own.reduce((c, k) => c * this.keys + k, 0);
    let row = this.ofMany.get(code);
    if (row === undefined) {
      row = this.rows.push(this.metAll(own.map((k) => this.meanings[k]))) - 1;
      sortInto(this.classes, this.rows, row);
      this.ofMany.set(code, row);
    }
    return row;
  }

  /** What the test reads of a board that is sound but for something unlisted where it touches. */
  get unlistedHere(): Prediction {
    return broadened(this.rows[0], false, this.anywhere);
  }

  private metAll(met: readonly Meaning[]): Prediction {
    const anywhere = met.some((m) => m.unlisted === 'anywhere');
    const here = met.some((m) => m.unlisted === 'here');
    const always = met.filter((m) => m.seen === undefined).map((m) => m.base);
    const plain = met
      .filter((m) => m.seen !== undefined)
      .reduce<(keys: readonly number[]) => Prediction>(
        (rest, { base, seen = 1 }) =>
          (keys) =>
            seenAtTimes(seen, rest([...keys, base]), rest(keys)),
        (keys) => this.partition.predict(...keys.filter((k) => k !== 0)),
      )(always);
    return anywhere || here ? broadened(plain, anywhere, this.anywhere) : plain;
  }

  /** The row of two keys of which one at least is met in a way of its own. */
  private metRow(a: Meaning, b: Meaning, rowOf: Uint16Array): number {
    const keys = this.partition.keys;
    const at = (x: number, y: number): number => rowOf[x * keys + y];
    const whole = at(a.base, b.base);
    const parts: [number, number][] = [[whole, 1]];
    for (const [own, other] of [
      [a, b],
      [b, a],
    ] as const)
      if (own.seen !== undefined) parts.push([at(0, other.base), own.seen]);
    if (!a.unlisted && !b.unlisted && parts.every(([row]) => row === whole)) return whole;
    const kind = [a, b].some((m) => m.unlisted === 'anywhere') ? 'anywhere' : a.unlisted || b.unlisted ? 'here' : '';
    const name = `${kind} ${parts.map((p) => p.join(':')).join(' ')}`;
    let row = this.byName.get(name);
    if (row === undefined) {
      row = this.rows.push(this.metAll([a, b])) - 1;
      this.byName.set(name, row);
    }
    return row;
  }
}

/** A meter in line shows one of its patterns; a figure may lie anywhere round what a sound board reads. */
function anywhereOf(rows: readonly Prediction[]): Anywhere {
  const all = alternativesOf(rows);
  if (all.length > 0 && all[0].means.length > 1) return { patterns: all };
  return { sound: rows[0].kind === 'values' ? rows[0].alternatives[0]?.means[0] : undefined };
}

/** Gives faults that are met in a way of their own keys beside the partition's. */
function meet(
  { keyOf, keys }: OutcomePartition,
  marked: (fault: number) => Marked | undefined,
): { keyOf: Uint16Array; meanings: readonly Meaning[]; met: readonly number[] } {
  const meanings: Meaning[] = Array.from({ length: keys }, (_, base) => ({ base }));
  const numbers = new Map<string, number>();
  const met: number[] = [];
  const keyed = keyOf.map((base, fault) => {
    const mark = marked(fault);
    if (!mark || (mark.unlisted === undefined && base === 0)) return base;
    met.push(fault);
    const name = `${base} ${mark.unlisted} ${mark.seen}`;
    let number = numbers.get(name);
    if (number === undefined) numbers.set(name, (number = meanings.push({ base, ...mark }) - 1));
    return number;
  });
  return { keyOf: keyed, meanings, met };
}

/** Gives each fault the number of its key text; the empty text is key 0. Also one fault to stand for each key. */
export function numberKeys(texts: readonly string[]): { keyOf: Uint16Array; keys: number; standsFor: number[] } {
  const numbers = new Map<string, number>([['', 0]]);
  const standsFor = [-1];
  const keyOf = Uint16Array.from(texts, (text, fault) => {
    let number = numbers.get(text);
    if (number === undefined) {
      number = numbers.size;
      numbers.set(text, number);
      standsFor.push(fault);
    }
    return number;
  });
  return { keyOf, keys: numbers.size, standsFor };
}
