import { solve, type Constraint } from 'yalps';

/** A pull towards no move, so that dials that do nothing stay: K of margin that a move of one kelvin has to win. */
const CALM = 1e-5;

/**
 * The move that makes the least of values + slopes · move as large as it can be: a linear program with the least value as
 * one unknown and every dial's way up and down as two.
 * @param slopes dial by dial, for each value. @param bounds of each dial's move.
 * @param gaps how much higher each dial is than the one before it, without the first; a move never turns that round.
 */
export function maximinLp(
  values: readonly number[],
  slopes: readonly (readonly number[])[],
  bounds: readonly (readonly [number, number])[],
  gaps: readonly number[] = [],
): number[] {
  const floor = Math.min(...values);
  const constraints = new Map<string, Constraint>();
  // least − slopes · move ≤ value: counted from the lowest value, so that no unknown is negative.
  values.forEach((value, i) => constraints.set(`value ${i}`, { max: value - floor }));
  bounds.forEach(([low, high], g) => {
    constraints.set(`up ${g}`, { max: Math.max(0, high) });
    constraints.set(`down ${g}`, { max: Math.max(0, -low) });
  });
  gaps.forEach((gap, g) => constraints.set(`gap ${g}`, { max: gap }));
  const way = (g: number, sign: number): Map<string, number> =>
    new Map([
      ['worth', -CALM],
      [`${sign > 0 ? 'up' : 'down'} ${g}`, 1],
      ...slopes[g].map((slope, i): [string, number] => [`value ${i}`, -sign * slope]),
      // The gap above shrinks when this dial goes up, the one below grows.
      [`gap ${g}`, sign],
      [`gap ${g - 1}`, -sign],
    ]);
  const variables = new Map([
    ['least', new Map([['worth', 1], ...values.map((_, i): [string, number] => [`value ${i}`, 1])])],
    ...slopes.flatMap((_, g): [string, Map<string, number>][] => [
      [`${g} up`, way(g, 1)],
      [`${g} down`, way(g, -1)],
    ]),
  ]);
  const { variables: found } = solve({ direction: 'maximize', objective: 'worth', constraints, variables });
  const moved = new Map(found);
  return slopes.map((_, g) => (moved.get(`${g} up`) ?? 0) - (moved.get(`${g} down`) ?? 0));
}
