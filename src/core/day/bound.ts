import { LATE_WEIGHT, END_WEIGHT, type DayJob, type DayProblem } from './problem';

/**
 * What no schedule costs less than. Each job takes at least its own time. Hands together are at most as fast as one who is as many times
 * as fast and may break off. The larger of both, part by part.
 */
export function lowerBound({ jobs, people, capacity, closed }: DayProblem, goal: 'day' | 'end'): number {
  if (jobs.length === 0) return 0;
  const active = (j: DayJob): number => j.steps.reduce((sum, s) => sum + (s.passive ? 0 : s.minutes), 0);
  const ends = new Map(jobs.map((j) => [j, earliestEnd(j, closed)]));
  const ownEnd = (j: DayJob): number => ends.get(j)!;
  const load = jobs.reduce((sum, j) => sum + active(j), 0) / people.length;
  const firstMin = Math.min(...jobs.map((j) => j.releaseMin));
  const loads = new Map<string, number>();
  for (const { steps } of jobs)
    for (const { needs, minutes } of steps) for (const name of needs) loads.set(name, (loads.get(name) ?? 0) + minutes);
  const things = [...loads].map(([name, sum]) => sum / Math.max(1, capacity[name] ?? 1));
  const endMin = Math.max(firstMin + Math.max(load, ...things, 0), ...jobs.map(ownEnd));
  if (goal === 'end') return endMin;
  const ownWaiting = (list: readonly DayJob[]): number =>
    list.reduce((sum, j) => sum + j.weight * (ownEnd(j) - j.releaseMin), 0);
  // Whatever is left out can only hold up the others: those that come later, and the heaviest, of which their own time says most.
  const here = jobs.filter((j) => j.releaseMin === 0).sort((a, b) => b.weight - a.weight);
  const later = ownWaiting(jobs.filter((j) => j.releaseMin > 0));
  const apart = here.map((_, k) => {
    const [heavy, rest] = [here.slice(0, k), here.slice(k)];
    const together = Math.max(
      sharedWaiting(rest, active, people.length),
      inOpenHours(rest, active, people.length, closed),
    );
    return later + ownWaiting(heavy) + together;
  });
  const waiting = Math.max(ownWaiting(jobs), inOpenHours(jobs, active, people.length, closed), ...apart);
  const late = jobs.reduce((sum, j) => sum + (j.dueMin === null ? 0 : j.weight * Math.max(0, ownEnd(j) - j.dueMin)), 0);
  return LATE_WEIGHT * late + waiting + END_WEIGHT * endMin;
}

/**
 * Σ w·C at least of jobs that are all there at once: the mean moment of a job's active work is, weighted over jobs, no earlier than on one hand that
 * is as many times as fast and takes the least work for its weight first (mean busy time; Goemans, Queyranne, Schulz, Skutella and Wang, SIAM J.
 * on Discrete Mathematics 15, 2002, from memory); and from that mean moment to the job's end passes what follows each bit of work in its chain.
 */
function sharedWaiting(jobs: readonly DayJob[], active: (j: DayJob) => number, hands: number): number {
  const sorted = jobs.filter((j) => active(j) > 0).sort((a, b) => active(a) / a.weight - active(b) / b.weight);
  let done = 0;
  let sum = jobs.filter((j) => active(j) === 0).reduce((s, j) => s + j.weight * restOf(j, 0), 0);
  for (const j of sorted) {
    const own = active(j);
    sum += (j.weight * (done + own / 2)) / hands;
    done += own;
    sum +=
      j.weight *
      j.steps.reduce(
        (s, step, k) => s + (step.passive ? 0 : (step.minutes / own) * (step.minutes / 2 + restOf(j, k + 1))),
        0,
      );
  }
  return sum;
}

/**
 * Σ w·(C − r) at least, closed hours counted: the k-th job to end does so after the k least amounts of work at the earliest, on all hands
 * together, in open hours; and the heaviest weights may stand with the earliest ends.
 */
function inOpenHours(
  jobs: readonly DayJob[],
  active: (j: DayJob) => number,
  hands: number,
  closed: DayProblem['closed'],
): number {
  const work = jobs.map(active).sort((a, b) => a - b);
  const weights = jobs.map((j) => j.weight).sort((a, b) => b - a);
  const released = jobs.reduce((sum, j) => sum + j.weight * j.releaseMin, 0);
  let done = 0;
  const ends = work.reduce((sum, minutes, k) => {
    done += minutes;
    return sum + weights[k] * clockAfter(done / hands, closed);
  }, 0);
  return ends - released;
}

/** When a job ends at the earliest if nobody else has one: work in open hours, broken off and gone on with as need be; the rest by itself. */
const earliestEnd = ({ releaseMin, steps }: DayJob, closed: DayProblem['closed']): number =>
  steps.reduce((at, s) => (s.passive ? at + s.minutes : clockAfter(s.minutes, closed, at)), releaseMin);

/** The clock after so many open minutes from a moment on. */
function clockAfter(openMin: number, closed: DayProblem['closed'], fromMin = 0): number {
  let [clock, left] = [fromMin, openMin];
  for (const [from, to] of [...closed].sort(([a], [b]) => a - b)) {
    if (to <= clock) continue;
    if (left <= from - clock) break;
    left -= Math.max(0, from - clock);
    clock = Math.max(clock, to);
  }
  return clock + left;
}

/** Minutes of a job's steps from one on. */
const restOf = ({ steps }: DayJob, from: number): number => steps.slice(from).reduce((sum, s) => sum + s.minutes, 0);
