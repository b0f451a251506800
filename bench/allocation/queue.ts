import type { AllocationOption, AllocationProblem, DonorOffer, Supply } from '../../src/core/allocation';
import type { Random } from '../../src/core/math';

export interface QueueSize {
  readonly jobs: number;
  readonly donors: number;
  readonly chipsEach: number;
  readonly types: number;
}

/**
 * A made-up queue: donors with random chips, loose stock, parts to buy for most types, one or two needs a job; part and
 * failure costs differ by job and donor. Some needs can be met by nothing.
 */
export function randomQueue(random: Random, { jobs, donors, chipsEach, types }: QueueSize): AllocationProblem {
  const whole = (n: number): number => Math.floor(random() * n);
  const offers: DonorOffer[] = Array.from({ length: donors }, (_, d) => ({
    id: `D-${d}`,
    words: `donor ${d}`,
    cost: 20 + 60 * random(),
  }));
  const supplies: (Supply & { type: number; risk: number; price: number })[] = [];
  for (const { id } of offers) {
    const counts = Array.from({ length: chipsEach }, () => whole(types)).reduce(
      (all, t) => all.set(t, (all.get(t) ?? 0) + 1),
      new Map<number, number>(),
    );
    for (const [type, count] of counts)
      supplies.push({ id: `${id}/${type}`, words: '', count, donor: id, type, risk: 0.02 + 0.2 * random(), price: 6 });
  }
  for (let type = 0; type < types; type++) {
    if (random() < 0.5)
      supplies.push({ id: `L-${type}`, words: '', count: 1 + whole(3), type, risk: 0.02 + 0.1 * random(), price: 4 });
    if (random() < 0.7) supplies.push({ id: `buy ${type}`, words: '', type, risk: 0.05, price: 30 + 30 * random() });
  }
  const needs = [];
  const options: AllocationOption[] = [];
  for (let job = 0; job < jobs; job++) {
    const worth = 50 + 400 * random();
    for (let k = random() < 0.3 ? 1 : 0; k >= 0; k--) {
      const [id, type] = [`${job}.${k}`, whole(types)];
      needs.push({ id, job, words: id });
      for (const s of supplies.filter((x) => x.type === type))
        options.push({ need: id, supply: s.id, cost: s.price + s.risk * worth, chance: 1 - s.risk });
    }
  }
  return { needs, supplies, donors: offers, options };
}
