import { randomQueue } from '../../../bench/allocation/queue';
import { loadSolver } from '../../workers/allocation/solver';
import { seededRandom } from '../math';
import { costAlone } from './alone';
import { allocate, lpText, planCost, type IntegerSolver } from './model';
import type { AllocationPlan, AllocationProblem } from './problem';

let solve: IntegerSolver;
beforeAll(async () => {
  solve = await loadSolver();
});

const planOf = (problem: AllocationProblem): AllocationPlan => {
  const plan = allocate(problem, solve);
  if (!plan.ok) throw new Error(plan.problems[0].message);
  return plan.value;
};

/** Fewest needs left, then least cost, over every set of donors and every way to share out. */
function bruteForce({ needs, supplies, donors, options }: AllocationProblem): { left: number; cost: number } {
  let best = { left: Infinity, cost: Infinity };
  for (let set = 0; set < 2 ** donors.length; set++) {
    const open = donors.filter((_, i) => set & (1 << i));
    const left = new Map(
      supplies.map((s) => [s.id, s.donor && !open.some((d) => d.id === s.donor) ? 0 : (s.count ?? Infinity)]),
    );
    const walk = (n: number, unmet: number, cost: number): void => {
      if (unmet > best.left || (unmet === best.left && cost >= best.cost)) return;
      if (n === needs.length) {
        best = { left: unmet, cost };
        return;
      }
      for (const o of options.filter((x) => x.need === needs[n].id)) {
        const there = left.get(o.supply)!;
        if (there < 1) continue;
        left.set(o.supply, there - 1);
        walk(n + 1, unmet, cost + o.cost);
        left.set(o.supply, there);
      }
      walk(n + 1, unmet + 1, cost);
    };
    walk(
      0,
      0,
      open.reduce((sum, d) => sum + d.cost, 0),
    );
  }
  return best;
}

test('150 small queues are solved to what trying everything finds', () => {
  const random = seededRandom(41);
  let opened = 0;
  let left = 0;
  for (let k = 0; k < 150; k++) {
    const problem = randomQueue(random, {
      jobs: 1 + (k % 5),
      donors: k % 4,
      chipsEach: 1 + (k % 3),
      types: 2 + (k % 3),
    });
    const plan = planOf(problem);
    const best = bruteForce(problem);
    expect([k, plan.unmet.length, plan.cost]).toEqual([k, best.left, expect.closeTo(best.cost, 4)]);
    opened += plan.open.length;
    left += plan.unmet.length;
  }
  // The instances are worth solving: donors are opened, and some needs are left.
  expect(opened).toBeGreaterThan(50);
  expect(left).toBeGreaterThan(50);
});

test('a plan holds: each need once, no supply beyond its count, no chip of a donor that stays whole', () => {
  const problem = randomQueue(seededRandom(8), { jobs: 14, donors: 8, chipsEach: 4, types: 6 });
  const { assigned, unmet, open, cost } = planOf(problem);
  expect([...assigned.map((o) => o.need), ...unmet].sort()).toEqual(problem.needs.map((n) => n.id).sort());
  for (const s of problem.supplies) {
    const taken = assigned.filter((o) => o.supply === s.id).length;
    expect(taken).toBeLessThanOrEqual(s.count ?? Infinity);
    if (taken > 0 && s.donor) expect(open).toContain(s.donor);
  }
  expect(cost).toBeCloseTo(planCost(problem, open, assigned), 9);
});

const shared: AllocationProblem = {
  needs: [1, 2, 3].map((job) => ({ id: `n${job}`, job, words: `job ${job}` })),
  donors: [{ id: 'D-1', words: 'donor', cost: 50 }],
  supplies: [
    { id: 'chips', words: 'of D-1', count: 3, donor: 'D-1' },
    { id: 'buy', words: 'bought' },
  ],
  options: [1, 2, 3].flatMap((job) => [
    { need: `n${job}`, supply: 'chips', cost: 5, chance: 0.9 },
    { need: `n${job}`, supply: 'buy', cost: 40, chance: 0.9 },
  ]),
};

test('one donor for three jobs is cheaper than three alone (by hand: 65 against 120)', () => {
  const plan = planOf(shared);
  expect([plan.open, plan.cost]).toEqual([['D-1'], 65]);
  expect(costAlone(shared)).toEqual({ cost: 120, unmet: 0 });
});

test('job by job never does better than the plan', () => {
  const random = seededRandom(12);
  let saved = 0;
  for (let k = 0; k < 60; k++) {
    const problem = randomQueue(random, { jobs: 6, donors: 4, chipsEach: 3, types: 4 });
    const plan = planOf(problem);
    const alone = costAlone(problem);
    expect(alone.unmet).toBeGreaterThanOrEqual(plan.unmet.length);
    if (alone.unmet === plan.unmet.length) {
      expect(alone.cost).toBeGreaterThanOrEqual(plan.cost - 1e-6);
      saved += alone.cost - plan.cost;
    }
  }
  expect(saved).toBeGreaterThan(0);
});

test('a need that nothing meets is left and the others are served', () => {
  const plan = planOf({ ...shared, needs: [...shared.needs, { id: 'n4', job: 4, words: 'job 4' }] });
  expect([plan.unmet, plan.assigned.length]).toEqual([['n4'], 3]);
  expect(planOf({ needs: [], supplies: [], donors: [], options: [] }).cost).toBe(0);
});

test('a solver that does not come to the end is said', () => {
  expect(allocate(shared, () => undefined)).toMatchObject({
    ok: false,
    problems: [{ message: 'The plan was not solved to the end; expected an optimal answer.' }],
  });
});

test('the program in LP text: one row for each need, for each counted supply, and for each option of a donor', () => {
  const lines = lpText(shared).split('\n');
  expect(lines.filter((l) => / = 1$/.test(l))).toEqual([
    ' r0: x0 + x1 + u0 = 1',
    ' r1: x2 + x3 + u1 = 1',
    ' r2: x4 + x5 + u2 = 1',
  ]);
  expect(lines).toContain(' r3: x0 + x2 + x4 - 3 o0 <= 0');
  expect(lines.filter((l) => /x\d - o0 <= 0/.test(l))).toHaveLength(3);
  expect(lines.slice(lines.indexOf('Binaries'))).toEqual(['Binaries', 'o0', 'End']);
  // Leaving a need costs more than the donor and the dearest way for every need together.
  expect(lines.find((l) => l.endsWith(' u0'))).toBe(' + 171.000000 u0');
});

test('with the donors fixed everything is whole', () => {
  const lines = lpText(shared, new Set(['D-1'])).split('\n');
  expect(lines).toContain('o0 = 1');
  expect(lines.slice(lines.indexOf('Binaries') + 1, -1)).toEqual([
    'x0',
    'x1',
    'x2',
    'x3',
    'x4',
    'x5',
    'u0',
    'u1',
    'u2',
  ]);
});

describe('on random queues', () => {
  const queues = Array.from({ length: 25 }, (_, k) =>
    randomQueue(seededRandom(300 + k), { jobs: 6, donors: 4, chipsEach: 3, types: 4 }),
  );
  const worth = ({ unmet, cost }: AllocationPlan): [number, number] => [unmet.length, cost];
  const isNoWorse = (a: AllocationPlan, b: AllocationPlan): boolean => {
    const [[leftA, costA], [leftB, costB]] = [worth(a), worth(b)];
    return leftA < leftB || (leftA === leftB && costA <= costB + 1e-6);
  };

  test('one more of everything never makes the plan worse, one donor less never better', () => {
    for (const queue of queues) {
      const plan = planOf(queue);
      const more = { ...queue, supplies: queue.supplies.map((s) => ({ ...s, count: s.count && s.count + 1 })) };
      expect(isNoWorse(planOf(more), plan)).toBe(true);
      const [gone, ...donors] = queue.donors;
      const lost = new Set(queue.supplies.filter((s) => s.donor === gone.id).map((s) => s.id));
      const less = {
        ...queue,
        donors,
        supplies: queue.supplies.filter((s) => !lost.has(s.id)),
        options: queue.options.filter((o) => !lost.has(o.supply)),
      };
      expect(isNoWorse(plan, planOf(less))).toBe(true);
    }
  });

  test('a job that goes leaves a plan that is no dearer', () => {
    for (const queue of queues) {
      const needs = queue.needs.filter((n) => n.job !== 0);
      const kept = new Set(needs.map((n) => n.id));
      const fewer = { ...queue, needs, options: queue.options.filter((o) => kept.has(o.need)) };
      expect(isNoWorse(planOf(fewer), planOf(queue))).toBe(true);
    }
  });
});
