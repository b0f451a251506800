import type { JobView } from '../../core/job';
import {
  hoursLabel,
  priceRule,
  quoteOfJob,
  stepsAhead,
  type Business,
  type DayJob,
  type DayPlan,
  type DayProblem,
  type Durations,
  type Quote,
} from '../../core/day';
import { openJobs, refreshSummaries } from '../../db/job-summaries';
import { findPractice } from '../../db/knowledge';
import type { Session } from '../../db/session';
import { listPeople } from '../access/people';
import { loadJob } from '../jobs/load-job';
import { loadPlace } from '../place';
import { work } from '../../server-work/pool';
import { loadDurations } from './durations';
import { loadBusiness } from './business';
import { closedMinutes } from './hours';

/** A job as the day shows it: when it is done in half of all days, by when in eight of ten days, and what was promised. */
export interface DayLine {
  readonly number: number;
  readonly device: string;
  readonly next: string;
  readonly midAt: string;
  readonly byAt: string;
  readonly promisedAt?: string;
  readonly late: boolean;
  /** What it waits for, and whether that should be there already. */
  readonly awaits?: { readonly what: string; readonly byAt: string; readonly overdue: boolean };
}

export interface BenchDay {
  readonly nowAt: string;
  readonly plan: DayPlan;
  readonly lines: readonly DayLine[];
  readonly people: readonly string[];
  /** In words by job and step. */
  readonly words: Readonly<Record<string, string>>;
  readonly closed: readonly (readonly [number, number])[];
  /** When the shop works, in words. */
  readonly hours: string;
  /** When a usual new job would be done in eight of ten days. */
  readonly nextPromiseAt: string;
  /** Closed jobs that the durations rest on. */
  readonly learnedFrom: number;
}

/** Jobs that are planned at once. */
const MOST_JOBS = 30;
/** What did not come when it was expected is reckoned with a day later, minutes. Engineering estimate. */
const OVERDUE_MIN = 24 * 60;
/** What comes later than this is planned as if it came then, minutes: working hours are known for a month. */
const MOST_AHEAD_MIN = 28 * 24 * 60;
/** What a usual new job takes, where nothing is known of it yet. */
const NEW_JOB = 'a new job';

/** The order of each shop's last plan: a plan that has begun is not turned over for a minute. Pages and routes are loaded apart. */
const shared = globalThis as { unisoldaPlans?: WeakMap<Session, readonly string[]> };
const plans = (shared.unisoldaPlans ??= new WeakMap());

const atMinute = (nowMs: number, min: number): string => new Date(nowMs + min * 60_000).toISOString();

/** The day at the benches: every open job's steps, who does what when, and what may be promised. */
export async function loadDay(db: Session, now: Date): Promise<BenchDay> {
  await refreshSummaries(db);
  const [{ durations, jobs: learnedFrom, stretch }, open, people, place, { hours }] = await Promise.all([
    loadDurations(db),
    openJobs(db, MOST_JOBS),
    listPeople(),
    loadPlace(db),
    loadBusiness(db),
  ]);
  const nowMs = now.getTime();
  const views: JobView[] = [];
  for (const { number, training } of open) {
    const job = training ? undefined : await loadJob(db, number);
    if (job?.ok) views.push(job.value);
  }
  const promised = (job: JobView): string | undefined => job.state.promise?.byAt ?? undefined;
  const jobs = views.map((job): DayJob => {
    const byAt = promised(job);
    return {
      id: String(job.number),
      words: job.board.device,
      releaseMin: releaseOf(job, nowMs),
      dueMin: byAt === undefined ? null : Math.max(0, (Date.parse(byAt) - nowMs) / 60_000),
      weight: 1,
      steps: stepsAhead(job, durations),
    };
  });
  const problem: DayProblem = {
    jobs,
    people:
      people.length > 0 ? people.map((p) => ({ id: p.name, role: p.role })) : [{ id: 'Bench lead', role: 'lead' }],
    capacity: {},
    closed: closedMinutes(hours, place.timeZone, nowMs),
  };
  const [{ plan, ends: all }, newByMin] = await Promise.all([
    work('day', { problem, steady: plans.get(db) }),
    promiseForNew(problem, durations),
  ]);
  plans.set(db, plan.order);
  const ends = new Map(all.map((e) => [e.job, e]));
  return {
    ...{ nowAt: now.toISOString(), plan, learnedFrom, closed: problem.closed, hours: hoursLabel(hours) },
    people: problem.people.map((p) => p.id),
    words: Object.fromEntries(jobs.flatMap((j) => j.steps.map((s) => [`${j.id} ${s.id}`, s.words]))),
    lines: views.map((job) => {
      const { midMin, byMin } = ends.get(String(job.number))!;
      const byAt = atMinute(nowMs, byMin * stretch);
      const promisedAt = promised(job);
      return {
        ...{ number: job.number, device: job.board.device, next: job.next.title },
        ...{ midAt: atMinute(nowMs, midMin), byAt, promisedAt },
        late: promisedAt !== undefined && Date.parse(byAt) > Date.parse(promisedAt),
        awaits: awaitsOf(job, nowMs),
      };
    }),
    nextPromiseAt: atMinute(nowMs, stretch * newByMin),
  };
}

/** What a job waits for. */
function awaitsOf({ state }: JobView, nowMs: number): DayLine['awaits'] {
  const { what, byAt } = state.delivery ?? {};
  return what && byAt ? { what, byAt, overdue: Date.parse(byAt) < nowMs } : undefined;
}

/** Nothing of a job is planned before what it waits for is there, minutes from now. */
function releaseOf(job: JobView, nowMs: number): number {
  const awaits = awaitsOf(job, nowMs);
  if (!awaits) return 0;
  return awaits.overdue ? OVERDUE_MIN : Math.min(MOST_AHEAD_MIN, (Date.parse(awaits.byAt) - nowMs) / 60_000);
}

/** By when a job that comes in now is done in eight of ten days, those before it kept in their order. */
async function promiseForNew(problem: DayProblem, durations: Durations): Promise<number> {
  const kinds = ['outside', 'probe', 'decide', 'heat', 'balls', 'prove', 'close'] as const;
  const steps = kinds.map((kind) => ({
    ...{ id: kind, words: '', passive: false, needs: [], role: 'apprentice' as const, chance: 1 },
    ...{ minutes: Math.round(durations[kind].minutes), sdLog: durations[kind].sdLog },
  }));
  const all = {
    ...problem,
    jobs: [...problem.jobs, { id: NEW_JOB, words: '', releaseMin: 0, dueMin: null, weight: 1, steps }],
  };
  const { ends } = await work('day', { problem: all });
  return ends.find((e) => e.job === NEW_JOB)!.byMin;
}

/** What a job is likely to take and cost, and how the shop says so. */
export interface ShopQuote {
  readonly quote: Quote;
  readonly business: Business;
}

export async function loadQuote(db: Session, job: JobView): Promise<ShopQuote> {
  const [{ durations }, practice, business] = await Promise.all([
    loadDurations(db),
    findPractice(db),
    loadBusiness(db),
  ]);
  return { quote: quoteOfJob(job, durations, priceRule(business, practice)), business };
}
