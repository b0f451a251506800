import 'server-only';
import { cache } from 'react';
import * as jobs from '@/application/jobs/load-job';
import type { JobView } from '@/core/job';
import { fail, type Result } from '@/core/result';
import { database } from '@/db/client';
import { findJob } from '@/db/jobs';

/** The view of one job, or why it cannot be shown. Asked once per request. */
export const findJobView = cache(async (number: number): Promise<Result<JobView>> =>
  Number.isInteger(number)
    ? jobs.loadJob(await database(), number)
    : fail(`Expected the number of a job; got "${number}".`),
);

/** The view of one job; undefined when it cannot be shown. */
export async function loadJob(number: number): Promise<JobView | undefined> {
  const job = await findJobView(number);
  return job.ok ? job.value : undefined;
}

/** Whether there is a job of this number, whether or not it can be shown. */
export const isJob = async (number: number): Promise<boolean> =>
  Number.isInteger(number) && (await findJob(await database(), number)) !== undefined;
