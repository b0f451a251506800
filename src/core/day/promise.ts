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
