import { classify, type OutcomeClass } from './outcome-classes';
import type { Prediction } from './prediction';

/**
 * What one test reads under every single and double fault. Faults that are alike for this test share a key; key 0 is
 * "changes nothing here". Two keys together name a row, and each row is one prediction.
 */
export interface TestTable {
  /** Key of each fault. */
  readonly keyOf: Uint16Array;
  readonly keys: number;
  /** rowOf[a · keys + b]: the prediction for faults with the keys a and b together; b = 0 for a alone. */
  readonly rowOf: Uint16Array;
  readonly rows: readonly Prediction[];
  /** The readings that the test can tell apart, with their chances by row. */
  readonly classes: readonly OutcomeClass[];
}

/** How one test parts the faults: what distinguishes them for it, and what two of them read together. */
export interface OutcomePartition {
  readonly keyOf: Uint16Array;
  readonly keys: number;
  /** Name of the row of two keys: equal names, equal predictions. */
  readonly rowName: (a: number, b: number) => string | number;
  readonly predict: (a: number, b: number) => Prediction;
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

/** Fills a table: every row is predicted once. */
export function buildTable({ keyOf, keys, predict }: OutcomePartition, { rowOf, pairs }: RowLayout): TestTable {
  const rows = pairs.map(([a, b]) => predict(a, b));
  return { keyOf, keys, rowOf, rows, classes: classify(rows) };
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
