export { normalDraw, seededRandom } from '../math';

/** One of several by their chances; undefined where none of them is it. */
export function pickIndex(chances: readonly number[], random: () => number): number | undefined {
  let left = random();
  for (const [i, p] of chances.entries()) {
    if (left < p) return i;
    left -= p;
  }
  return undefined;
}
