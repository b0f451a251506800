import { learnedDurations, promisesSeen, stretchOf, type Durations } from '../../core/day';
import { queryJobs } from '../../db/job-summaries';
import { eventsOfJobs } from '../../db/jobs';
import { findLearning } from '../../db/knowledge';
import type { Session } from '../../db/session';

/** Closed jobs that durations are learned from. */
const LEARNED_FROM = 200;

/** What kinds of steps take here, and the closed jobs that say so. */
export async function loadDurations(db: Session): Promise<{ durations: Durations; jobs: number; stretch: number }> {
  const { jobs } = await queryJobs(db, { state: 'closed', limit: LEARNED_FROM });
  const numbers = jobs.filter((j) => !j.training).map((j) => j.number);
  const events = await eventsOfJobs(db, numbers);
  const closed = [...events.values()];
  const { durations: learn } = await findLearning(db);
  return {
    durations: learnedDurations(learn ? closed : []),
    jobs: numbers.length,
    stretch: stretchOf(promisesSeen(closed)),
  };
}
