/** A source of numbers in [0, 1). Passed in wherever chance is needed, so that a run repeats from its seed. */
export type Random = () => number;

/** The 32-bit generator mulberry32 (public domain, from memory): small, fast, good enough to shuffle tests. */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
