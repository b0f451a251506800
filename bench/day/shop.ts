import { jobEnds, planDay, stretchOf, type DayJob, type DayProblem, type PromiseSeen } from '../../src/core/day';
import { seededRandom } from '../../src/core/math';
import { note, ratio, section } from '../print';

/** A shop of so many days of nine hours, its clock running in open hours alone. */
const DAYS = Number(process.env.DAYS ?? 250);
const DAY_MIN = 9 * 60;
const PEOPLE = ['a', 'b'];
/** Promises are to be kept so often. */
const SHARE = Number(process.env.SHARE ?? 0.8);
/** Work that comes in against what hands can do. */
const LOAD = 0.85;
/** Minutes of looking and of mending as the planner takes them; the truth follows another law about the same means. */
const LOOK = { minutes: 30, sdLog: 0.6 };
const MEND = [20, 45, 90];

interface Arriving {
  readonly id: string;
  readonly atMin: number;
  readonly planned: DayJob['steps'];
  readonly trueMin: number;
  readonly weight: number;
}

/** A gamma variable of shape 2 about a mean: skewed, and not the planner's log-normal. */
const gamma2 = (mean: number, random: () => number): number =>
  (-mean / 2) * (Math.log(1 - random()) + Math.log(1 - random()));

function arrivals(random: () => number): Arriving[] {
  const meanWork = LOOK.minutes + MEND.reduce((a, b) => a + b) / MEND.length;
  const gap = meanWork / (LOAD * PEOPLE.length);
  const list: Arriving[] = [];
  for (let atMin = 0, k = 0; atMin < DAYS * DAY_MIN; k++) {
    atMin += -gap * Math.log(1 - random());
    const mend = MEND[Math.floor(random() * MEND.length)];
    const step = { words: '', passive: false, needs: [], role: 'apprentice' as const, chance: 1 };
    list.push({
      ...{
        id: `j${k}`,
        atMin,
        weight: 1 + Math.floor(random() * 3),
        trueMin: gamma2(LOOK.minutes, random) + gamma2(mend, random),
      },
      planned: [
        { ...step, id: 'look', ...LOOK },
        { ...step, id: 'mend', minutes: mend, sdLog: 0.6 },
      ],
    });
  }
  return list;
}

interface Waiting extends Arriving {
  readonly dueMin: number;
}
type Policy = (waiting: readonly Waiting[], nowMin: number) => Waiting;

const problemOf = (waiting: readonly Waiting[], nowMin: number, busyMin: readonly number[]): DayProblem => ({
  jobs: [
    ...waiting.map((w) => ({
      ...w,
      words: '',
      releaseMin: 0,
      dueMin: Math.max(0, w.dueMin - nowMin),
      steps: w.planned,
    })),
    ...busyMin.flatMap((min, i) =>
      min > nowMin
        ? [
            {
              ...{ id: `busy${i}`, words: '', releaseMin: 0, dueMin: null, weight: 1000 },
              steps: [
                {
                  ...waiting[0]?.planned[0],
                  id: 'on',
                  words: '',
                  minutes: min - nowMin,
                  sdLog: 0.3,
                  passive: false,
                  needs: [],
                  role: 'apprentice' as const,
                  chance: 1,
                },
              ],
            },
          ]
        : [],
    ),
  ],
  people: PEOPLE.map((id) => ({ id, role: 'lead' })),
  capacity: {},
  closed: [],
});

const first =
  (by: (w: Waiting) => number): Policy =>
  (waiting) =>
    waiting.reduce((a, b) => (by(b) < by(a) ? b : a));
const planned: Policy = (waiting, nowMin) => {
  if (waiting.length === 1) return waiting[0];
  const [next] = planDay(problemOf(waiting, nowMin, []), { tries: 150 }).slots;
  return waiting.find((w) => w.id === next.job)!;
};

/** Runs the shop: who is free takes the next job by the policy. What is promised at the door is the plan's 80 % end. */
function run(
  list: readonly Arriving[],
  policy: Policy,
  promises: Map<string, number>,
): { kept: number; lateMin: number; waitMin: number } {
  const free = PEOPLE.map(() => 0);
  const expectedFree = PEOPLE.map(() => 0);
  const queue: Waiting[] = [];
  const seen: PromiseSeen[] = [];
  const planned = new Map<string, number>();
  let [kept, lateMin, waitMin, at] = [0, 0, 0, 0];
  const arrive = (job: Arriving): void => {
    const known = promises.get(job.id);
    if (known === undefined) {
      const open: Waiting = { ...job, dueMin: Infinity };
      const day = problemOf([...queue, open], job.atMin, expectedFree);
      const jobs = day.jobs.map((j) => (j.dueMin === Infinity ? { ...j, dueMin: null } : j));
      const ends = jobEnds({ ...day, jobs }, planDay({ ...day, jobs }, { tries: 60 }));
      const byMin = ends.find((e) => e.job === job.id)!.byMin;
      planned.set(job.id, byMin);
      promises.set(job.id, job.atMin + byMin * stretchOf(seen, SHARE));
    }
    queue.push({ ...job, dueMin: promises.get(job.id)! });
  };
  while (at < list.length || queue.length > 0) {
    const hand = free[0] <= free[1] ? 0 : 1;
    const nowMin = Math.max(free[hand], queue.length === 0 ? list[at].atMin : 0);
    while (at < list.length && list[at].atMin <= nowMin) arrive(list[at++]);
    const job = policy(queue, nowMin);
    queue.splice(queue.indexOf(job), 1);
    free[hand] = nowMin + job.trueMin;
    expectedFree[hand] = nowMin + job.planned.reduce((sum, s) => sum + s.minutes, 0);
    if (planned.has(job.id)) seen.push({ plannedMin: planned.get(job.id)!, tookMin: free[hand] - job.atMin });
    kept += Number(free[hand] <= job.dueMin);
    lateMin += job.weight * Math.max(0, free[hand] - job.dueMin);
    waitMin += job.weight * (free[hand] - job.atMin);
  }
  return { kept: kept / list.length, lateMin: lateMin / list.length, waitMin: waitMin / list.length };
}

const list = arrivals(seededRandom(250));
section(
  `A shop of ${DAYS} days, ${list.length} jobs, two hands; promises are the plan's 80 % ends, durations of another law than the planner's`,
);
const promises = new Map<string, number>();
const results = {
  'the plan': run(list, planned, promises),
  'first come, first served': run(
    list,
    first((w) => w.atMin),
    promises,
  ),
  'due date order': run(
    list,
    first((w) => w.dueMin),
    promises,
  ),
};
for (const [name, { kept, lateMin, waitMin }] of Object.entries(results))
  note(
    `${name}: promises kept ${(100 * kept).toFixed(1)} %, late ${lateMin.toFixed(1)} weighted min a job, waiting ${waitMin.toFixed(0)}`,
  );
ratio(
  'waiting, first come first served to the plan',
  results['first come, first served'].waitMin / results['the plan'].waitMin,
  '> 1',
);
ratio(
  'lateness, first come first served to the plan',
  results['first come, first served'].lateMin / results['the plan'].lateMin,
  '> 1',
);
