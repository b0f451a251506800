import { aliveNow, refOf, type Belief, type BoardNow } from './belief';

/** Two parts at fault together. */
export interface SuspectPair {
  readonly refs: readonly [string, string];
  readonly labels: readonly [string, string];
  readonly p: number;
}

/** Pairs of parts by probability, each with its likeliest fault modes. */
export function suspectPairs(belief: Belief, now?: BoardNow, most = 3): SuspectPair[] {
  const { faults, p } = belief;
  const numbers = new Map<string, number>();
  const refs = faults.map((f) => {
    const number = numbers.get(refOf(f)) ?? numbers.size;
    numbers.set(refOf(f), number);
    return number;
  });
  const alive = faults.map(now ? aliveNow(now) : () => true);
  const byRefs = new Map<number, { p: number; best: number; faults: [number, number] }>();
  belief.space.forEach((h, i, j) => {
    if (p[h] < 1e-6 || j < 0 || refs[i] === refs[j] || !alive[i] || !alive[j]) return;
    const key = Math.min(refs[i], refs[j]) * numbers.size + Math.max(refs[i], refs[j]);
    const entry = byRefs.get(key);
    if (!entry) byRefs.set(key, { p: p[h], best: p[h], faults: [i, j] });
    else {
      entry.p += p[h];
      if (p[h] > entry.best) Object.assign(entry, { best: p[h], faults: [i, j] });
    }
  });
  return [...byRefs.values()]
    .sort((a, b) => b.p - a.p)
    .slice(0, most)
    .map(({ p: chance, faults: [i, j] }) => ({
      refs: [refOf(faults[i]), refOf(faults[j])],
      labels: [faults[i].label, faults[j].label],
      p: chance,
    }));
}
