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

/** Pairs of keys that any likely hypothesis has, as a · keys + b with a ≥ b, with their probability. */
interface Gathered {
  readonly cells: Uint32Array;
  readonly pairs: Float64Array;
  readonly of: FaultIndex;
}

/** What was gathered of a list of hypotheses goes when the list goes. */
const gathered = new WeakMap<Likely, { of: FaultIndex; byKeys: Map<Uint16Array, Omit<Gathered, 'of'>> }>();

/** Numbers of the likely hypotheses with one of some faults. @param isSome 1 for those, by fault; 0 behind the last. */
export function hypothesesWith({ first, second, pairsEnd, sets }: Likely, isSome: Uint8Array): number[] {
  const found: number[] = [];
  for (let k = 0; k < pairsEnd; k++) if (isSome[first[k]] || isSome[second[k]]) found.push(k);
  sets.forEach((set, k) => set.some((f) => isSome[f]) && found.push(pairsEnd + k));
  return found;
}

/** Row of one likely hypothesis in a table. */
export function likelyRow({ first, second, singles, pairsEnd, sets }: Likely, table: TestTable, k: number): number {
  const { keyOf, keys, rowOf } = table;
  if (k < singles) return rowOf[keyOf[first[k]] * keys];
  if (k < pairsEnd) return rowOf[keyOf[first[k]] * keys + keyOf[second[k]]];
  return table.rowOfAll(sets[k - pairsEnd].map((f) => keyOf[f]));
}

/** Row of each likely hypothesis in a table. */
export function likelyRows({ first, second, singles, pairsEnd, sets }: Likely, table: TestTable): Uint32Array {
  const { keyOf, keys, rowOf } = table;
  const rows = new Uint32Array(first.length);
  for (let k = 0; k < singles; k++) rows[k] = rowOf[keyOf[first[k]] * keys];
  for (let k = singles; k < pairsEnd; k++) rows[k] = rowOf[keyOf[first[k]] * keys + keyOf[second[k]]];
  sets.forEach((set, k) => (rows[pairsEnd + k] = table.rowOfAll(set.map((f) => keyOf[f]))));
  return rows;
}

/** Probability of each row of a table, over the likely hypotheses. */
export function likelyRowMass(likely: Likely, table: TestTable): Float64Array {
  const { keyOf, keys, rowOf, plainKeys } = table;
  const setRows = likely.sets.map((set) => table.rowOfAll(set.map((f) => keyOf[f])));
  const mass = new Float64Array(table.rows.length);
  const { cells, pairs, of } = gather(likely, table);
  for (let n = 0; n < cells.length; n++) {
    const b = cells[n] % plainKeys;
    mass[rowOf[((cells[n] - b) / plainKeys) * keys + b]] += pairs[n];
  }
  meetOwnKeys(table, of, mass);
  setRows.forEach((row, k) => (mass[row] += likely.p[likely.pairsEnd + k]));
  return mass;
}

/** Moves the hypotheses whose faults are met in a way of their own from the plain rows to their own ones. */
function meetOwnKeys(table: TestTable, { from, other, p }: FaultIndex, mass: Float64Array): void {
  const { met, keyOf, keys, rowOf, plainKeyOf } = table;
  const none = keyOf.length;
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
function gather(likely: Likely, { plainKeyOf: keyOf, plainKeys: keys }: TestTable): Gathered {
  let kept = gathered.get(likely);
  if (!kept) gathered.set(likely, (kept = { of: indexFaults(likely, keyOf.length), byKeys: new Map() }));
  const { of, byKeys } = kept;
  let found = byKeys.get(keyOf);
  if (!found) {
    const { from, other, p, total } = of;
    const none = keyOf.length;
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

let room = new Float64Array(0);

/** Zeros to add up in, at least so many; whoever fills them leaves them zero again. */
function roomFor(cells: number): Float64Array {
  if (room.length < cells) room = new Float64Array(cells);
  return room;
}
