/** Days against brute force, closed forms and a published job shop. */
import { seededRandom, type Random } from '../math';
import { dayProblemSchema, planDay, type DayPlan, type DayProblem } from '.';
import { costOf } from './problem';

const problem = (input: object): DayProblem => dayProblemSchema.parse(input);
const endOf = (plan: DayPlan): number => Math.max(...plan.slots.map((s) => s.endMin));

/** No person and no resource is in two places, no step before the one it follows, nobody at work while it is closed. */
function expectPossible({ jobs, people, capacity, closed }: DayProblem, { slots }: DayPlan): void {
  const overlap = (a: (typeof slots)[number], b: (typeof slots)[number]): boolean =>
    a.startMin < b.endMin && b.startMin < a.endMin;
  for (const { id } of people) {
    const own = slots.filter((s) => s.person === id);
    expect(own.filter((a, i) => own.slice(i + 1).some((b) => overlap(a, b)))).toEqual([]);
    expect(own.filter((s) => closed.some(([from, to]) => s.startMin < to && from < s.endMin))).toEqual([]);
  }
  for (const { id, steps, releaseMin } of jobs) {
    const own = steps.map((step) => slots.find((s) => s.job === id && s.step === step.id)!);
    expect(own.filter((s, i) => s.startMin < (i === 0 ? releaseMin : own[i - 1].endMin))).toEqual([]);
  }
  const uses = jobs.flatMap((j) =>
    j.steps.flatMap((step) =>
      step.needs.map((name) => ({ name, slot: slots.find((s) => s.job === j.id && s.step === step.id)! })),
    ),
  );
  const usedAt = (name: string, min: number): number =>
    uses.filter((u) => u.name === name && u.slot.startMin <= min && min < u.slot.endMin).length;
  expect(uses.filter(({ name, slot }) => usedAt(name, slot.startMin) > (capacity[name] ?? 1))).toEqual([]);
}

function smallProblem(random: Random): DayProblem {
  const upTo = (n: number): number => 1 + Math.floor(random() * n);
  return problem({
    jobs: Array.from({ length: upTo(3) }, (_, j) => ({
      id: `j${j}`,
      weight: upTo(3),
      releaseMin: random() < 0.3 ? upTo(3) : 0,
      dueMin: random() < 0.6 ? upTo(8) : null,
      steps: Array.from({ length: upTo(2) }, (_, k) => ({
        ...{ id: `s${k}`, minutes: upTo(3), passive: random() < 0.3 },
        needs: random() < 0.4 ? ['plate'] : [],
        role: random() < 0.3 ? 'technician' : 'apprentice',
      })),
    })),
    people: [{ id: 'a', role: 'technician' }, ...(random() < 0.5 ? [{ id: 'b', role: 'apprentice' }] : [])],
    closed: random() < 0.3 ? [[2, 4]] : [],
  });
}

/**
 * The least cost over every start of every step at every whole minute, whoever does it: nothing is assumed about good schedules.
 * @param under what costs no less is not looked at.
 */
function bruteForce({ jobs, people, closed }: DayProblem, under: number): number {
  const steps = jobs.flatMap((j) => j.steps.map((step, k) => ({ j, step, k })));
  // All after one another, after the last release and the closed hours, is never the best's end.
  const HORIZON = 3 + 2 + steps.reduce((sum, { step }) => sum + step.minutes, 0);
  let best = under;
  const placed: { startMin: number; endMin: number; person: number | null; needs: string[] }[] = [];
  /** `ends` are those of the jobs before the one that is being placed. Sums only grow: what is placed costs this already. */
  const go = (i: number, ends: readonly number[]): void => {
    const before = placed[placed.length - 1]?.endMin ?? 0;
    const begun = i === 0 ? [] : [...ends, before];
    const cost = costOf(begun.length < jobs.length ? jobs.slice(0, begun.length) : jobs, begun).total;
    if (cost >= best) return;
    if (i === steps.length) {
      best = cost;
      return;
    }
    const { j, step, k } = steps[i];
    const from = k === 0 ? j.releaseMin : before;
    for (let startMin = from; startMin + step.minutes <= HORIZON; startMin++) {
      const endMin = startMin + step.minutes;
      const meets = (p: { startMin: number; endMin: number }): boolean => p.startMin < endMin && startMin < p.endMin;
      if (placed.some((p) => meets(p) && p.needs.some((n) => step.needs.includes(n)))) continue;
      const hands = step.passive
        ? [null]
        : people.flatMap((p, h) => (step.role === 'apprentice' || p.role === 'technician' ? [h] : []));
      if (!step.passive && closed.some(([f, t]) => startMin < t && f < endMin)) continue;
      for (const person of hands) {
        if (person !== null && placed.some((p) => p.person === person && meets(p))) continue;
        placed.push({ startMin, endMin, person, needs: step.needs });
        go(i + 1, k === 0 ? begun : ends);
        placed.pop();
      }
    }
  };
  go(0, []);
  return best;
}

test('small days equal brute force over all starts and hands, passive steps, closed hours and roles among them', () => {
  const random = seededRandom(26);
  for (let k = 0; k < 300; k++) {
    const day = smallProblem(random);
    const plan = planDay(day);
    expectPossible(day, plan);
    // One costs as much as the plan, and none less.
    const { total } = plan.cost;
    expect([k, plan.exact, total]).toEqual([k, true, bruteForce(day, total + 1e-6)]);
    expect(plan.bound).toBeLessThanOrEqual(plan.cost.total + 1e-9);
  }
});

/** Times on two machines one after the other, and the end by Johnson's rule. */
function johnson(times: readonly (readonly [number, number])[]): number {
  const first = times.filter(([a, b]) => a <= b).toSorted((x, y) => x[0] - y[0]);
  const second = times.filter(([a, b]) => a > b).toSorted((x, y) => y[1] - x[1]);
  let [one, two] = [0, 0];
  for (const [a, b] of [...first, ...second]) {
    one += a;
    two = Math.max(one, two) + b;
  }
  return two;
}

test('two machines in a row end as early as Johnson’s rule (Naval Research Logistics Quarterly 1, 1954) says', () => {
  const random = seededRandom(5);
  for (let k = 0; k < 20; k++) {
    const times = Array.from({ length: 4 + (k % 5) }, (): [number, number] => [
      1 + Math.floor(random() * 20),
      1 + Math.floor(random() * 20),
    ]);
    const day = problem({
      jobs: times.map(([a, b], j) => ({
        id: `j${j}`,
        steps: [
          { id: 'one', minutes: a, passive: true, needs: ['one'] },
          { id: 'two', minutes: b, passive: true, needs: ['two'] },
        ],
      })),
      people: [{ id: 'a', role: 'lead' }],
    });
    expect([k, endOf(planDay(day, { goal: 'end' }))]).toEqual([k, johnson(times)]);
  }
});

/** Six jobs on six machines, each step a machine and its time; Fisher and Thompson 1963 (ft06, from memory), best end 55. */
const FT06 = [
  [2, 1, 0, 3, 1, 6, 3, 7, 5, 3, 4, 6],
  [1, 8, 2, 5, 4, 10, 5, 10, 0, 10, 3, 4],
  [2, 5, 3, 4, 5, 8, 0, 9, 1, 1, 4, 7],
  [1, 5, 0, 5, 2, 5, 3, 3, 4, 8, 5, 9],
  [2, 9, 1, 3, 4, 5, 5, 4, 0, 3, 3, 1],
  [1, 3, 3, 3, 5, 9, 0, 10, 4, 4, 2, 1],
];

test('a published job shop of six by six ends within its bound and at most one in twenty after its best end of 55', () => {
  const day = problem({
    jobs: FT06.map((row, j) => ({
      id: `j${j}`,
      steps: Array.from({ length: 6 }, (_, k) => ({
        id: `s${k}`,
        minutes: row[2 * k + 1],
        passive: true,
        needs: [`m${row[2 * k]}`],
      })),
    })),
    people: [{ id: 'a', role: 'lead' }],
  });
  const plan = planDay(day, { goal: 'end' });
  expectPossible(day, plan);
  expect(endOf(plan)).toBeGreaterThanOrEqual(55);
  expect(endOf(plan)).toBeLessThanOrEqual(55 * 1.05);
  expect(plan.bound).toBeLessThanOrEqual(55);
});

function shopOf(jobs: number, random: Random): DayProblem {
  const names = ['hot air', 'microscope', 'supply'];
  return problem({
    jobs: Array.from({ length: jobs }, (_, j) => ({
      id: `j${j}`,
      weight: 1 + Math.floor(random() * 3),
      dueMin: 400 + Math.floor(random() * 3000),
      steps: Array.from({ length: 8 }, (_, k) => ({
        ...{ id: `s${k}`, minutes: 5 + Math.floor(random() * 25), passive: k % 4 === 3 },
        needs: random() < 0.3 ? [names[Math.floor(random() * 3)]] : [],
      })),
    })),
    people: ['a', 'b', 'c'].map((id) => ({ id, role: 'technician' })),
    capacity: { 'hot air': 2, microscope: 3, supply: 3 },
  });
}

test('sixty jobs of eight steps for three people: possible, near the bound, and no promise broken that can be kept', () => {
  const day = shopOf(60, seededRandom(3));
  const free = { ...day, jobs: day.jobs.map((j) => ({ ...j, dueMin: null })) };
  const plan = planDay(free);
  expectPossible(free, plan);
  expect(plan.cost.total / plan.bound).toBeLessThan(1.08);
  const promised = planDay(day);
  expectPossible(day, promised);
  expect(promised.cost.late).toBe(0);
});

test('a plan that has begun is kept for a minute’s gain, and given up for a new promise', () => {
  const day = shopOf(12, seededRandom(9));
  const first = planDay(day);
  const begun = [...new Set(first.slots.map((s) => s.job))];
  const steady = planDay(day, { steady: begun });
  expect([...new Set(steady.slots.map((s) => s.job))].slice(0, 4)).toEqual(begun.slice(0, 4));
  const urgent = { ...day.jobs[0], id: 'urgent', weight: 50, dueMin: 120 };
  const again = planDay({ ...day, jobs: [...day.jobs, urgent] }, { steady: begun });
  expect(Math.max(...again.slots.filter((s) => s.job === 'urgent').map((s) => s.endMin))).toBeLessThanOrEqual(240);
});

test('a plan is the same again after an hour in which its first steps were done, but for what they were', () => {
  const day = shopOf(12, seededRandom(9));
  const first = planDay(day);
  const inOrder = (plan: DayPlan) => plan.slots.toSorted((a, b) => a.startMin - b.startMin);
  const steady = first.order;
  const again = planDay(day, { steady });
  const begins = (plan: DayPlan) =>
    inOrder(plan)
      .slice(0, 12)
      .map((s) => [s.job, s.step, s.startMin, s.person]);
  expect(begins(again)).toEqual(begins(first));
  expect(again.cost.total).toBeLessThanOrEqual(first.cost.total);
  // The first step of all is done, and a job came in that nobody named.
  const [{ job, step }] = inOrder(first);
  const jobs = day.jobs.map((j) => (j.id === job ? { ...j, steps: j.steps.filter((s) => s.id !== step) } : j));
  const late = { ...day.jobs[0], id: 'late', weight: 0.01, dueMin: null };
  const on = planDay({ ...day, jobs: [...jobs, late] }, { steady });
  // Those that begin at once are told in any order.
  const next = (plan: DayPlan) =>
    inOrder(plan)
      .filter((s) => s.job !== 'late' && !(s.job === job && s.step === step))
      .slice(0, 8)
      .map((s) => `${s.job} ${s.step}`)
      .sort();
  expect(next(on)).toEqual(next(first));
});

test('a step that is pinned begins there, with whom it is pinned to', () => {
  const day = problem({
    jobs: [
      { id: 'x', steps: [{ id: 's', minutes: 10, pinned: { startMin: 25, person: 'b' } }] },
      { id: 'y', steps: [{ id: 's', minutes: 10 }] },
    ],
    people: [
      { id: 'a', role: 'lead' },
      { id: 'b', role: 'lead' },
    ],
  });
  expect(planDay(day).slots.find((s) => s.job === 'x')).toMatchObject({ startMin: 25, person: 'b' });
});

test('the bound knows of the night: a heavy job that cannot end before it is not taken to, the light ones share the hands', () => {
  const steps = [
    { id: 'work', minutes: 60 },
    { id: 'cool', minutes: 30, passive: true },
    { id: 'prove', minutes: 60 },
  ];
  const jobs = [
    { id: 'heavy', weight: 100, steps },
    { id: 'light', steps: [{ id: 'work', minutes: 40 }] },
  ];
  // Open for 100 minutes, closed for 900: 60 of work, 30 by itself, 10 of the proof, the other 50 in the morning.
  const plan = planDay(problem({ jobs, people: [{ id: 'a', role: 'lead' }], closed: [[100, 1000]] }));
  const heavyEnd = 1050;
  expect(plan.bound).toBeGreaterThanOrEqual(100 * heavyEnd + 40);
  expect(plan.bound).toBeLessThanOrEqual(plan.cost.total);
  // A proof is not broken off: it is begun in the morning, and ends at 1,060.
  expect(plan.cost.total / plan.bound).toBeLessThan(1060 / 1050 + 0.002);
});

test('a job that waits for a delivery adds to the bound: what is known of the others stays', () => {
  const step = (id: string, minutes: number) => ({ id, minutes });
  const here = Array.from({ length: 6 }, (_, j) => ({
    id: `j${j}`,
    steps: [step('probe', 20 + 5 * j), step('heat', 30)],
  }));
  const people = [{ id: 'a', role: 'technician' }];
  const alone = planDay(problem({ jobs: here, people }));
  const later = { id: 'later', releaseMin: 1440, steps: [step('probe', 25), step('heat', 30)] };
  const both = planDay(problem({ jobs: [...here, later], people }));
  // The waiting of the one that comes later is its own 55 minutes at least, and it is done after 1,440 and those.
  expect(both.bound).toBeGreaterThanOrEqual(alone.bound + 55);
  expect(both.bound).toBeLessThanOrEqual(both.cost.total);
  expect(both.cost.total / both.bound).toBeLessThan(1.1);
});

test('what is urgent is done as early as if nothing else were to be done, whatever it costs the others', () => {
  const random = seededRandom(41);
  const rush = {
    id: 'rush',
    dueMin: null,
    steps: [
      { id: 'out', minutes: 3, urgent: true },
      { id: 'rest', minutes: 30 },
    ],
  };
  for (let k = 0; k < 60; k++) {
    const some = smallProblem(random);
    const full = problem({
      ...some,
      // Promises that are broken by every minute that goes to the urgent one.
      jobs: [...some.jobs.map((j) => ({ ...j, dueMin: 1, weight: 500 })), rush],
    });
    const out = planDay(full).slots.find((s) => s.step === 'out')!;
    expectPossible(full, planDay(full));
    expect(out.startMin).toBe(planDay({ ...full, jobs: full.jobs.slice(-1) }).slots[0].startMin);
  }
});
