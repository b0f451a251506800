import 'server-only';
import { cache } from 'react';
import * as jobs from '@/application/jobs/load-job';
import { liveStream } from '@/application/live';
import type { JobView } from '@/core/job';
import { fail, type Result } from '@/core/result';
import { database } from '@/db/client';
import { findJob, newestEventOf } from '@/db/jobs';

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

const plain = (words: string, status: number): Response =>
  new Response(words, { status, headers: { 'content-type': 'text/plain; charset=utf-8' } });

/** A stream of what is entered to a job. */
export async function hearJob(number: number, signal: AbortSignal): Promise<Response> {
  const newest = Number.isSafeInteger(number) ? await newestEventOf(await database(), number) : undefined;
  if (newest === undefined) return plain(`Expected a job that was opened; got ${number}.`, 404);
  const stream = liveStream(`job ${number}`, newest, signal);
  if (!stream) return plain('Expected fewer pages that listen at once. This one is as it was when it was opened.', 503);
  return new Response(stream, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
}
