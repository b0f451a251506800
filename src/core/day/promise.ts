import type { JobEvent } from '../job';
import { normalDraw, seededRandom } from '../math';
import type { DayProblem, DayStep } from './problem';
import { endsInOrder, type DayPlan } from './schedule';

/** When a job ends: in half of all days, and by when in so many of a hundred. A mean would lie in the night. */
export interface JobEnd {
  readonly job: string;
  readonly midMin: number;
  readonly byMin: number;
}

/** Days that are drawn. Engineering estimate: the 80 % point within a few minutes. */
const DAYS = 200;
const SEED = 80;

/** A step's minutes as they come: log-normal about what is expected, nothing where it turns out not to be needed. */
function drawn(step: DayStep, random: () => number): DayStep {
  if (random() >= step.chance) return { ...step, minutes: 0 };
  const { sdLog } = step;
  return { ...step, minutes: step.minutes * Math.exp(sdLog * normalDraw(random) - (sdLog * sdLog) / 2) };
}

/**
 * When the jobs of a plan end, over days drawn from what its steps may take, the order kept as planned.
 * @param share such as 0.8: what is promised is kept in so many days.
 */
export function jobEnds(problem: DayProblem, plan: Pick<DayPlan, 'order'>, share = 0.8): JobEnd[] {
  const random = seededRandom(SEED);
  const ends = new Map(problem.jobs.map((j) => [j.id, [] as number[]]));
  for (let day = 0; day < DAYS; day++) {
    const jobs = problem.jobs.map((j) => ({ ...j, steps: j.steps.map((s) => drawn(s, random)) }));
    for (const [job, end] of endsInOrder({ ...problem, jobs }, plan.order)) ends.get(job)!.push(end);
  }
  return problem.jobs.map(({ id }) => {
    const sorted = ends.get(id)!.toSorted((a, b) => a - b);
    const at = (part: number): number => sorted[Math.min(sorted.length - 1, Math.ceil(part * sorted.length) - 1)];
    return { job: id, midMin: at(0.5), byMin: at(share) };
  });
}

/** What was planned when something was promised, and what it took, minutes. */
export interface PromiseSeen {
  readonly plannedMin: number;
  readonly tookMin: number;
}

/** What became of the promises of closed jobs: from the last one that was made to the first closing after it. */
export function promisesSeen(closed: readonly (readonly JobEvent[])[]): PromiseSeen[] {
  return closed.flatMap((events): PromiseSeen[] => {
    const promise = events.findLast((e) => e.body.kind === 'promise' && e.body.byAt !== null);
    const close = promise && events.find((e) => e.body.kind === 'close' && e.at > promise.at);
    if (!close || promise.body.kind !== 'promise' || promise.body.byAt === null) return [];
    const from = Date.parse(promise.at);
    return [
      { plannedMin: (Date.parse(promise.body.byAt) - from) / 60_000, tookMin: (Date.parse(close.at) - from) / 60_000 },
    ];
  });
}

/** So many promises are looked back on, and fewer than so many say nothing yet. Engineering estimates. */
const LOOKED_BACK = 150;
const LEAST_SEEN = 10;

/**
 * By how much what is planned has to be stretched to be kept so often, by what became of earlier promises: work that comes in later, other
 * laws than the plan's, a pause that nobody planned. The share of past ratios that makes it hold for the next one, whatever their law
 * (split conformal prediction; Vovk, Gammerman and Shafer, Algorithmic Learning in a Random World, 2005, from memory); 1 before enough were
 * seen, and never less.
 */
export function stretchOf(seen: readonly PromiseSeen[], share = 0.8): number {
  const ratios = seen
    .slice(-LOOKED_BACK)
    .filter((s) => s.plannedMin > 0)
    .map((s) => s.tookMin / s.plannedMin)
    .sort((a, b) => a - b);
  if (ratios.length < LEAST_SEEN) return 1;
  const rank = Math.ceil((ratios.length + 1) * share);
  return Math.max(1, ratios[Math.min(ratios.length, rank) - 1]);
}
