import type { TestTable } from './outcome-partition';

/** What a reading says to the rows of its table. */
export interface Likelihoods {
  readonly table: Pick<TestTable, 'keyOf' | 'keys' | 'rowOf'>;
  readonly likelihood: Float64Array;
}

/**
 * Classes by their keys in several tables: the kind of each class, and one class of each kind.
 * @param standsFor a fault for each class.
 */
export function kindsUnder(
  standsFor: Uint16Array,
  tables: readonly Pick<TestTable, 'keyOf'>[],
): { kindOf: Uint16Array; kinds: number[] } {
  const kindOf = new Uint16Array(standsFor.length);
  let kinds = [0];
  for (const { keyOf } of new Set(tables)) {
    const numbers = new Map<number, number>();
    kinds = [];
    standsFor.forEach((f, c) => {
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

/** A reading is never ruled out altogether: below this its logarithm would be none. */
const LEAST_LIKELIHOOD = 1e-300;

/**
 * Logarithms of what all readings say to each fault of a list, and to each pair of them as a · length + b. A fault that a
 * reading does not see leaves it as it is: only pairs of two that it sees are looked up.
 */
export function logLikelihoods(
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
