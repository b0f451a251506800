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

/**
 * Jobs by their names as an order, each time one is named its next step; what is left of a job follows where it is named last, and those that
 * are not named come after.
 */
function asOrder({ jobs }: DayProblem, names: readonly string[]): number[] {
  const index = new Map(jobs.map((j, i) => [j.id, i]));
  const named = names.flatMap((name) => index.get(name) ?? []);
  const left = jobs.map((j) => j.steps.length);
  const toCome = jobs.map(() => 0);
  for (const j of named) toCome[j]++;
  const order: number[] = [];
  const place = (j: number, steps: number): void => {
    for (let k = 0; k < steps; k++) order.push(j);
    left[j] -= steps;
  };
  for (const j of named) {
    // Named more often than it has steps: the first ones were done since.
    if (toCome[j] <= left[j]) place(j, toCome[j] === 1 ? left[j] : 1);
    toCome[j]--;
  }
  jobs.forEach((_, j) => place(j, left[j]));
  return order;
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

/** When something that is there once is taken: spans in their order, those that touch made one. */
type Busy = [from: number, to: number][];

/** A step with who may do it and what it needs, looked up once for all orders. */
interface Ready {
  readonly step: DayStep;
  readonly minutes: number;
  /** Indices of hands, the least able first: others are kept for what only they may do. */
  readonly able: readonly number[];
  /** Indices of kinds of things. */
  readonly needs: readonly number[];
}

/** The calendar that orders are placed into. */
class Day {
  private readonly ready: readonly (readonly Ready[])[];
  /** How many there are of each kind of thing. */
  private readonly copies: readonly number[];
  /** Jobs that begin with what is urgent. */
  private readonly urgent: readonly number[];

  constructor(
    private readonly problem: DayProblem,
    private readonly goal: 'day' | 'end',
  ) {
    const { jobs, people, capacity } = problem;
    const things = [...new Set(jobs.flatMap((j) => j.steps.flatMap((s) => s.needs)))];
    const byRank = people.map((_, i) => i).toSorted((a, b) => RANK[people[a].role] - RANK[people[b].role] || a - b);
    this.copies = things.map((name) => capacity[name] ?? 1);
    this.urgent = jobs.flatMap((j, i) => (j.steps[0].urgent ? [i] : []));
    this.ready = jobs.map((j) =>
      j.steps.map((step) => ({
        step,
        minutes: step.minutes,
        able: step.passive ? [] : byRank.filter((i) => isAble(people[i], step)),
        needs: step.needs.map((name) => things.indexOf(name)),
      })),
    );
  }

  /** The order with what is urgent before all else: no cost is weighed against a danger. */
  private urgentFirst(order: Order): Order {
    if (this.urgent.length === 0) return order;
    const left = new Set(this.urgent);
    return [...this.urgent, ...order.filter((j) => !left.delete(j))];
  }

  totalOf(order: Order): number {
    return this.costAt(this.place(this.urgentFirst(order)));
  }

  /** The cost of what is placed, every job taking its own time for what is left. */
  leastOf(begun: Order): number {
    const order = this.urgentFirst(begun);
    const ends = this.place(order);
    const { jobs } = this.problem;
    const taken = jobs.map(() => 0);
    for (const j of order) taken[j] += 1;
    return this.costAt(
      ends.map((end, j) => end + this.ready[j].slice(taken[j]).reduce((sum, { minutes }) => sum + minutes, 0)),
    );
  }

  planOf(any: Order): { readonly slots: Slot[]; readonly cost: DayCost; readonly order: string[] } {
    const order = this.urgentFirst(any);
    const slots: Slot[] = [];
    const ends = this.place(order, slots);
    return {
      order: order.map((j) => this.problem.jobs[j].id),
      slots: slots.toSorted((a, b) => a.startMin - b.startMin || (a.job < b.job ? -1 : 1)),
      cost: costOf(this.problem.jobs, ends),
    };
  }

  private costAt(ends: readonly number[]): number {
    const cost = costOf(this.problem.jobs, ends);
    return this.goal === 'end' ? cost.endMin : cost.total;
  }

  /**
   * Places the steps of an order, each at its first free place. @param slots takes what is placed, where somebody asks for it.
   * @returns when each job ends; its release where nothing of it is placed.
   */
  private place(order: Order, slots?: Slot[]): number[] {
    const { jobs, people, closed } = this.problem;
    const hands = people.map((): Busy => closed.map(([from, to]) => [from, to]));
    const things = this.copies.map((count) => Array.from({ length: count }, (): Busy => []));
    const at = new Int32Array(jobs.length);
    const ends = jobs.map((j) => j.releaseMin);
    for (const j of order) {
      const ready = this.ready[j][at[j]++];
      const { startMin, hand, taken } = firstPlace(ready, ends[j], hands, things);
      const endMin = startMin + ready.minutes;
      if (hand !== undefined) occupy(hands[hand], startMin, endMin);
      for (const busy of taken) occupy(busy, startMin, endMin);
      ends[j] = endMin;
      const person = hand === undefined ? null : people[hand].id;
      slots?.push({ job: jobs[j].id, step: ready.step.id, startMin, endMin, person });
    }
    return ends;
  }
}

const isAble = (person: DayProblem['people'][number], { role, pinned }: DayStep): boolean =>
  RANK[person.role] >= RANK[role] && (pinned?.person === undefined || pinned.person === person.id);

/** The first moment at which a hand and all things that a step needs are free together; never where there is none. */
function firstPlace(
  { step, minutes, able, needs }: Ready,
  fromMin: number,
  hands: readonly Busy[],
  things: readonly (readonly Busy[])[],
): { readonly startMin: number; readonly hand?: number; readonly taken: readonly Busy[] } {
  let startMin = Math.max(fromMin, step.pinned?.startMin ?? 0);
  for (;;) {
    let earliest = startMin;
    let hand: number | undefined;
    if (!step.passive) {
      let handMin = Infinity;
      for (const i of able) {
        const freeMin = freeFrom(hands[i], startMin, minutes);
        if (freeMin < handMin) [hand, handMin] = [i, freeMin];
        if (freeMin === startMin) break;
      }
      if (hand === undefined) return { startMin: Infinity, taken: [] };
      earliest = handMin;
    }
    const taken: Busy[] = [];
    for (const kind of needs) {
      const [busy, freeMin] = freest(things[kind], startMin, minutes);
      if (!busy) return { startMin: Infinity, taken: [] };
      taken.push(busy);
      if (freeMin > earliest) earliest = freeMin;
    }
    if (earliest === startMin) return { startMin, hand, taken };
    startMin = earliest;
  }
}

/** The copy that is free first, and when. */
function freest(copies: readonly Busy[], fromMin: number, minutes: number): [busy: Busy | undefined, freeMin: number] {
  let [best, bestMin]: [Busy | undefined, number] = [undefined, Infinity];
  for (const busy of copies) {
    const freeMin = freeFrom(busy, fromMin, minutes);
    if (freeMin < bestMin) [best, bestMin] = [busy, freeMin];
    if (freeMin === fromMin) break;
  }
  return [best, bestMin];
}

/** The first moment from which something is free for so long. */
function freeFrom(busy: Busy, fromMin: number, minutes: number): number {
  let at = fromMin;
  for (const [from, to] of busy) {
    if (at + minutes <= from) return at;
    if (to > at) at = to;
  }
  return at;
}

/** Takes a span; one that touches another is made one with it, so that few are left to look through. */
function occupy(busy: Busy, from: number, to: number): void {
  if (to <= from) return;
  let i = 0;
  while (i < busy.length && busy[i][0] <= from) i++;
  const before = busy[i - 1];
  const after = busy[i];
  if (before?.[1] === from) {
    before[1] = to;
    if (after?.[0] === to) {
      before[1] = after[1];
      busy.splice(i, 1);
    }
  } else if (after?.[0] === to) after[0] = from;
  else busy.splice(i, 0, [from, to]);
}
