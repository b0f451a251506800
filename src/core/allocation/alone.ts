import type { DonorId } from '../identities';
import type { AllocationNeed, AllocationOption, AllocationProblem } from './problem';

export interface AloneCost {
  readonly cost: number;
  /** Needs that are left this way. */
  readonly unmet: number;
}

interface Way extends AloneCost {
  readonly donor?: DonorId;
  /** Supplies used up, once for each chip. */
  readonly used: readonly string[];
}

/**
 * What the queue costs without a common plan: job by job in the given order, each with one donor of its own or none,
 * whichever is cheapest for it then; what else is on an opened donor serves nobody. It is a plan that could be carried out, so
 * the best plan never costs more for the same needs.
 */
export function costAlone(problem: AllocationProblem): AloneCost {
  const left = new Map(problem.supplies.map((s) => [s.id, s.count ?? Infinity]));
  const closed = new Map(problem.donors.map((d) => [d.id, d.cost]));
  const donorOf = new Map(problem.supplies.map((s) => [s.id, s.donor]));
  const options = new Map<string, AllocationOption[]>();
  for (const o of problem.options) options.set(o.need, [...(options.get(o.need) ?? []), o]);
  let [cost, unmet] = [0, 0];
  for (const job of new Set(problem.needs.map((n) => n.job))) {
    const needs = problem.needs.filter((n) => n.job === job);
    const ways = [undefined, ...closed.keys()].map((donor) => wayOf(needs, donor, closed.get(donor ?? '') ?? 0));
    const best = ways.reduce((a, b) => (b.unmet < a.unmet || (b.unmet === a.unmet && b.cost < a.cost) ? b : a));
    if (best.donor) closed.delete(best.donor);
    for (const supply of best.used) left.set(supply, left.get(supply)! - 1);
    cost += best.cost;
    unmet += best.unmet;
  }
  return { cost, unmet };

  /** The needs of one job from stock, from what is bought, and from this donor. */
  function wayOf(needs: readonly AllocationNeed[], donor: DonorId | undefined, opening: number): Way {
    const used: string[] = [];
    let [sum, missing] = [opening, 0];
    for (const { id } of needs) {
      const there = (options.get(id) ?? []).filter(({ supply }) => {
        const from = donorOf.get(supply);
        return (from === undefined || from === donor) && left.get(supply)! > used.filter((s) => s === supply).length;
      });
      if (there.length === 0) missing += 1;
      else {
        const least = there.reduce((a, b) => (b.cost < a.cost ? b : a));
        used.push(least.supply);
        sum += least.cost;
      }
    }
    return { donor, used, cost: sum, unmet: missing };
  }
}
