import { seededRandom } from '../math';
import { lowerBound } from './bound';
import { costOf, type DayCost, type DayJob, type DayProblem, type DayStep, type Slot } from './problem';

export interface DayPlan {
  readonly slots: readonly Slot[];
  readonly cost: DayCost;
  /** No schedule costs less. */
  readonly bound: number;
  /** Known to be the best there is. */
  readonly exact: boolean;
  /** Jobs in the order in which their steps were placed, each as often as it has steps. */
  readonly order: readonly string[];
}

export interface DayOptions {
  /** What the plan is for: the shop's costs, or the end of the last step alone. */
  readonly goal?: 'day' | 'end';
  /** Orders that are tried beyond the first ones. */
  readonly tries?: number;
  /** An order that is kept to as far as it costs no more: a started plan is not turned over for a minute. */
  readonly steady?: readonly string[];
}

/** When each job ends where its steps are placed in a given order, minutes from now; for days that went otherwise than expected. */
export function endsInOrder(problem: DayProblem, order: readonly string[]): ReadonlyMap<string, number> {
  const index = new Map(problem.jobs.map((j, i) => [j.id, i]));
  const { slots } = new Day(problem, 'day').planOf(order.map((id) => index.get(id)!));
  const ends = new Map<string, number>();
  for (const { job, endMin } of slots) ends.set(job, Math.max(ends.get(job) ?? 0, endMin));
  return ends;
}

/** Orders of so few steps are gone through to the end. */
const EXACT_STEPS = 9;
/** Orders tried where nothing else is said: fewer of longer ones, so that the time is about the same. Engineering estimates. */
const MOST_TRIES = 3000;
const PLACED_STEPS = 350_000;
const LEAST_TRIES = 100;
const SEED = 7;
/** A new order has to win so much of the cost to be taken over the one that was begun with. Engineering estimate. */
const STEADY_SHARE = 0.01;
const RANK = { apprentice: 0, technician: 1, lead: 2 } as const;

/**
 * Plans a day. An order of the steps (each job's own order kept) gives one schedule: every step at its first free place. Among the schedules
 * of all orders is a best one for every cost that does not fall with later ends (active schedules; Sprecher, Kolisch and Drexl, European J. of
 * Operational Research 80, 1995, from memory). Few steps: all orders, cut off by what is certain; more: the best of several rules, then a
 * seeded local search that moves one job's place at a time.
 */
export function planDay(problem: DayProblem, { goal = 'day', tries, steady }: DayOptions = {}): DayPlan {
  const day = new Day(problem, goal);
  const count = problem.jobs.reduce((sum, j) => sum + j.steps.length, 0);
  const bound = lowerBound(problem, goal);
  if (count <= EXACT_STEPS) return { ...day.planOf(exactOrder(day, problem)), bound, exact: true };
  const rules = ruleOrders(problem);
  let best: Tried = (steady ? [asOrder(problem, steady), ...rules] : rules)
    .map((order) => ({ order, total: day.totalOf(order) }))
    .reduce((a, b) => (b.total < a.total ? b : a));
  best = searched(
    day,
    best,
    bound,
    tries ?? Math.min(MOST_TRIES, Math.max(LEAST_TRIES, Math.round(PLACED_STEPS / count))),
  );
  if (steady) {
    const before = asOrder(problem, steady);
    if (best.total > (1 - STEADY_SHARE) * day.totalOf(before)) return { ...day.planOf(before), bound, exact: false };
  }
  return { ...day.planOf(best.order), bound, exact: best.total <= bound };
}

interface Tried {
  readonly order: Order;
  readonly total: number;
}

/** Indices of jobs: each time one comes, its next step is placed. */
type Order = readonly number[];

/** Jobs by their names as an order of whole jobs; those that are not named come after. */
function asOrder({ jobs }: DayProblem, names: readonly string[]): number[] {
  const rank = new Map(names.map((name, i) => [name, i]));
  return jobs
    .map((_, i) => i)
    .toSorted((a, b) => (rank.get(jobs[a].id) ?? Infinity) - (rank.get(jobs[b].id) ?? Infinity) || a - b)
    .flatMap((i) => jobs[i].steps.map(() => i));
}

/** How much later than its share of all work a job is taken to end. Engineering estimates. */
const SLACKS = [1, 1.1, 1.25];

/** Whole jobs one after the other by several rules, and all jobs step by step in turn. */
function ruleOrders({ jobs, people }: DayProblem): number[][] {
  const active = (j: DayJob): number => j.steps.reduce((sum, s) => sum + (s.passive ? 0 : s.minutes), 0);
  const whole = (j: DayJob): number => j.steps.reduce((sum, s) => sum + s.minutes, 0);
  const by = (key: (j: DayJob) => number): number[] =>
    jobs.map((_, i) => i).toSorted((a, b) => key(jobs[a]) - key(jobs[b]) || a - b);
  const keys: ((j: DayJob) => number)[] = [
    (j) => j.dueMin ?? Infinity,
    (j) => active(j) / j.weight,
    (j) => whole(j) / j.weight,
    (j) => (j.dueMin ?? 1e6) - whole(j),
    (j) => j.releaseMin,
    (j) => -whole(j),
  ];
  /** From the end: among those whose promise allows it the most work for its weight (Smith, Naval Research Logistics Quarterly 3, 1956). */
  const fromTheEnd = (slack: number): number[] => {
    const left = new Set(jobs.map((_, i) => i));
    const order: number[] = [];
    let endMin = jobs.reduce((sum, j) => sum + active(j), 0) / people.length;
    while (left.size > 0) {
      const due = (i: number): number => jobs[i].dueMin ?? Infinity;
      const allowed = [...left].filter((i) => due(i) >= slack * endMin + whole(jobs[i]) - active(jobs[i]));
      const worst = (key: (i: number) => number, among: readonly number[]): number =>
        among.reduce((a, b) => (key(b) > key(a) ? b : a));
      const last = allowed.length > 0 ? worst((i) => active(jobs[i]) / jobs[i].weight, allowed) : worst(due, [...left]);
      left.delete(last);
      order.unshift(last);
      endMin -= active(jobs[last]) / people.length;
    }
    return order;
  };
  const longest = Math.max(...jobs.map((j) => j.steps.length));
  return [...keys.map(by), ...SLACKS.map(fromTheEnd)].flatMap((order) => {
    return [
      order.flatMap((i) => jobs[i].steps.map(() => i)),
      Array.from({ length: longest }, (_, k) => order.filter((i) => jobs[i].steps.length > k)).flat(),
    ];
  });
}

/**
 * Moves and exchanges at random, kept where they cost no more; a little worse is let pass at first (simulated annealing; Kirkpatrick, Gelatt
 * and Vecchi, Science 220, 1983). First all steps of a job together, then single steps.
 */
function searched(day: Day, start: Tried, bound: number, tries: number): Tried {
  const random = seededRandom(SEED);
  const n = start.order.length;
  let [here, best] = [start, start];
  for (let k = 0; k < tries && best.total > bound; k++) {
    const order = 2 * k < tries ? jobMoved(here.order, random) : [...here.order];
    if (2 * k >= tries) {
      const [a, b] = [Math.floor(random() * n), Math.floor(random() * n)];
      if (random() < 0.5) [order[a], order[b]] = [order[b], order[a]];
      else order.splice(b, 0, ...order.splice(a, 1));
    }
    const total = day.totalOf(order);
    const heat = LET_PASS * here.total * (1 - k / tries) ** 2;
    if (total <= here.total || random() < Math.exp((here.total - total) / Math.max(1e-9, heat)))
      here = { order, total };
    if (total < best.total) best = { order, total };
  }
  return best;
}

/** What is let pass at first, as a share of the cost. Engineering estimate. */
const LET_PASS = 0.0005;

/** All steps of one job taken out and put together somewhere else. */
function jobMoved(order: Order, random: () => number): number[] {
  const job = order[Math.floor(random() * order.length)];
  const others = order.filter((j) => j !== job);
  const at = Math.floor(random() * (others.length + 1));
  return [...others.slice(0, at), ...order.filter((j) => j === job), ...others.slice(at)];
}

/** Every order, cut off where what is placed already costs more than the best. */
function exactOrder(day: Day, { jobs }: DayProblem): Order {
  let best: { order: number[]; total: number } = { order: [], total: Infinity };
  const left = jobs.map((j) => j.steps.length);
  const order: number[] = [];
  const go = (): void => {
    if (left.every((n) => n === 0)) {
      const total = day.totalOf(order);
      if (total < best.total) best = { order: [...order], total };
      return;
    }
    // What is placed ends no earlier whatever follows, and what is left takes its own time at least.
    if (day.leastOf(order) >= best.total) return;
    for (let j = 0; j < jobs.length; j++) {
      if (left[j] === 0) continue;
      left[j] -= 1;
      order.push(j);
      go();
      order.pop();
      left[j] += 1;
    }
  };
  go();
  return best.order;
}

/** Free time of something that is there once. */
type Busy = [from: number, to: number][];

/** The calendar that orders are placed into. */
class Day {
  constructor(
    private readonly problem: DayProblem,
    private readonly goal: 'day' | 'end',
  ) {}

  totalOf(order: Order): number {
    const { cost } = this.place(order);
    return this.goal === 'end' ? cost.endMin : cost.total;
  }

  /** The cost of what is placed, every job taking its own time for what is left. */
  leastOf(order: Order): number {
    const { ends } = this.place(order);
    const taken = new Map<number, number>();
    for (const j of order) taken.set(j, (taken.get(j) ?? 0) + 1);
    const { jobs } = this.problem;
    const cost = costOf(jobs, (id) => {
      const j = jobs.findIndex((job) => job.id === id);
      return (
        (ends[j] ?? jobs[j].releaseMin) + jobs[j].steps.slice(taken.get(j) ?? 0).reduce((sum, s) => sum + s.minutes, 0)
      );
    });
    return this.goal === 'end' ? cost.endMin : cost.total;
  }

  planOf(order: Order): { readonly slots: Slot[]; readonly cost: DayCost; readonly order: string[] } {
    const { slots, cost } = this.place(order);
    return {
      order: order.map((j) => this.problem.jobs[j].id),
      slots: slots.toSorted((a, b) => a.startMin - b.startMin || (a.job < b.job ? -1 : 1)),
      cost,
    };
  }

  private place(order: Order): { slots: Slot[]; ends: (number | undefined)[]; cost: DayCost } {
    const { jobs, people, capacity, closed } = this.problem;
    const hands = people.map((): Busy => [...closed]);
    const things = new Map<string, Busy[]>();
    const copiesOf = (name: string): Busy[] => {
      const known = things.get(name);
      if (known) return known;
      const made = Array.from({ length: capacity[name] ?? 1 }, (): Busy => []);
      things.set(name, made);
      return made;
    };
    const at = jobs.map(() => 0);
    const ends: (number | undefined)[] = jobs.map(() => undefined);
    const slots: Slot[] = [];
    for (const j of order) {
      const job = jobs[j];
      const step = job.steps[at[j]++];
      const slot = this.firstPlace(step, Math.max(job.releaseMin, ends[j] ?? 0), hands, copiesOf);
      const { startMin, hand, copies } = slot;
      const endMin = startMin + step.minutes;
      if (hand !== undefined) occupy(hands[hand], startMin, endMin);
      for (const busy of copies) occupy(busy, startMin, endMin);
      ends[j] = endMin;
      slots.push({ job: job.id, step: step.id, startMin, endMin, person: hand === undefined ? null : people[hand].id });
    }
    return { slots, ends, cost: costOf(jobs, (id) => ends[jobs.findIndex((job) => job.id === id)] ?? 0) };
  }

  private firstPlace(
    step: DayStep,
    fromMin: number,
    hands: readonly Busy[],
    copiesOf: (name: string) => Busy[],
  ): { startMin: number; hand?: number; copies: Busy[] } {
    const { people } = this.problem;
    const able = people
      .map((p, i) => ({ i, p }))
      .filter(
        ({ p }) =>
          RANK[p.role] >= RANK[step.role] && (step.pinned?.person === undefined || step.pinned.person === p.id),
      );
    let startMin = Math.max(fromMin, step.pinned?.startMin ?? 0);
    for (;;) {
      const copies = step.needs.map((name) => freest(copiesOf(name), startMin, step.minutes));
      const things = copies.map((c) => c?.freeMin ?? Infinity);
      const hand = step.passive
        ? undefined
        : able
            .map(({ i }) => ({ i, freeMin: freeFrom(hands[i], startMin, step.minutes) }))
            // The least able of those who are free: others are kept for what only they may do.
            .reduce<{ i: number; freeMin: number } | undefined>(
              (a, b) =>
                a &&
                (a.freeMin < b.freeMin || (a.freeMin === b.freeMin && RANK[people[a.i].role] <= RANK[people[b.i].role]))
                  ? a
                  : b,
              undefined,
            );
      if (!step.passive && !hand) return { startMin: Infinity, copies: [] };
      const earliest = Math.max(startMin, hand?.freeMin ?? 0, ...things);
      if (earliest === startMin || earliest === Infinity)
        return { startMin: earliest, hand: hand?.i, copies: copies.map((c) => c!.busy) };
      startMin = earliest;
    }
  }
}

/** The copy that is free first. */
function freest(
  copies: readonly Busy[],
  fromMin: number,
  minutes: number,
): { busy: Busy; freeMin: number } | undefined {
  return copies
    .map((busy) => ({ busy, freeMin: freeFrom(busy, fromMin, minutes) }))
    .reduce<{ busy: Busy; freeMin: number } | undefined>((a, b) => (a && a.freeMin <= b.freeMin ? a : b), undefined);
}

/** The first moment from which something is free for so long; spans are in their order. */
function freeFrom(busy: Busy, fromMin: number, minutes: number): number {
  let at = fromMin;
  for (const [from, to] of busy) {
    if (at + minutes <= from) return at;
    if (to > at) at = to;
  }
  return at;
}

function occupy(busy: Busy, from: number, to: number): void {
  if (to <= from) return;
  const i = busy.findIndex(([f]) => f > from);
  busy.splice(i < 0 ? busy.length : i, 0, [from, to]);
}
