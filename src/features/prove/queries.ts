import 'server-only';
import { foldJob, runningSoak } from '@/core/job';
import { database } from '@/db/client';
import { jobEventsOf, jobsWithSoaks } from '@/db/jobs';

/** A soak that runs somewhere on the bench. */
export interface SoakClock {
  readonly job: number;
  readonly startedAt: string;
  readonly minutes: number;
}

/** The soaks that run now, in all jobs. What they are computed from is on disk: they go on through a restart. */
export async function loadSoakClocks(): Promise<SoakClock[]> {
  const db = await database();
  const clocks = await Promise.all(
    (await jobsWithSoaks(db)).map(async (job) => {
      const state = foldJob(await jobEventsOf(db, job));
      const soak = state.closed ? undefined : runningSoak(state.soaks);
      return soak ? [{ job, startedAt: soak.startedAt, minutes: soak.minutes }] : [];
    }),
  );
  return clocks.flat();
}
