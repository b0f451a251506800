import type { Fault } from './faults';

/** Faults that no test tells apart now, taken together as one. */
export interface FaultClasses {
  /** Class of each fault. */
  readonly of: Uint16Array;
  /** Faults of each class, by number; the first stands for all. */
  readonly members: readonly (readonly number[])[];
}

/** So many classes are told apart at once: below it every fault is its own. A pair of each two is a hypothesis. */
export const MOST_CLASSES = 420;

/** A class of more faults than this is none that a test could single out: it stays one. */
const MOST_OPENED = 100;

/**
 * Groups faults that have the same key in every table: no test on the board tells them apart. Faults of parts that were
 * worked on stand alone, since they begin and end at times of their own; so does what no list holds, and nothing at all.
 * @param keys of every fault, one list for each test. @param worked parts that were off, replaced or mended.
 */
export function groupFaults(
  faults: readonly Fault[],
  keys: readonly Uint16Array[],
  worked: ReadonlySet<string>,
): FaultClasses {
  if (faults.length <= MOST_CLASSES) return alone(faults);
  // Many tests share their lists.
  const distinct = [...new Set(keys)];
  const numbers = new Map<string, number>();
  const members: number[][] = [];
  const of = Uint16Array.from(faults, (fault, i) => {
    const own = worked.has(fault.ref) || fault.fitting !== undefined || fault.effects.length === 0;
    const name = own ? fault.id : distinct.map((list) => list[i]).join(' ');
    let number = numbers.get(name);
    if (number === undefined) {
      numbers.set(name, (number = members.length));
      members.push([]);
    }
    members[number].push(i);
    return number;
  });
  return { of, members };
}

/** Every fault on its own. */
const alone = (faults: readonly Fault[]): FaultClasses => ({
  of: Uint16Array.from(faults.keys()),
  members: faults.map((_, i) => [i]),
});

/** The classes with the likeliest ones told apart into their faults, as far as there is room. */
export function tellApart({ of, members }: FaultClasses, chance: ArrayLike<number>, least: number): FaultClasses {
  let room = MOST_CLASSES - members.length;
  const order = [...members.keys()].filter(
    (c) => members[c].length > 1 && members[c].length <= MOST_OPENED && chance[c] >= least,
  );
  order.sort((a, b) => chance[b] - chance[a]);
  const apart = new Set<number>();
  // One class of many members may be worth more than the room there is: the leading one is always opened.
  for (const c of order) {
    if (apart.size > 0 && members[c].length > room) continue;
    apart.add(c);
    room -= members[c].length - 1;
  }
  if (apart.size === 0) return { of, members };
  const next = members.flatMap((list, c) => (apart.has(c) ? list.map((f) => [f]) : [list]));
  const renumbered = new Uint16Array(of.length);
  next.forEach((list, c) => list.forEach((f) => (renumbered[f] = c)));
  return { of: renumbered, members: next };
}
