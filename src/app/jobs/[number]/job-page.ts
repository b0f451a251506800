import { notFound, redirect } from 'next/navigation';
import { findJobView, isJob } from '@/features/job/queries';

/** What every page of a job gets: its number in the path, which proposed test is asked for, and what an address opens. */
export interface JobPageProps {
  readonly params: Promise<{ number: string }>;
  readonly searchParams: Promise<{ test?: string; view?: string; plan?: string; station?: string; part?: string }>;
}

type JobOfPage = Extract<Awaited<ReturnType<typeof findJobView>>, { ok: true }>['value'];

/** The job of a page, or the not-found page. */
export async function jobOfPage({
  params,
  searchParams,
}: JobPageProps): Promise<{ job: JobOfPage; testIndex: number }> {
  const number = Number((await params).number);
  const found = await findJobView(number);
  // A job whose board cannot be read says so on a page of its own; its record is as it was.
  if (!found.ok) return (await isJob(number)) ? redirect(`/jobs/${number}/unreadable`) : notFound();
  const job = found.value;
  const asked = Number((await searchParams).test ?? 0);
  return { job, testIndex: asked >= 0 && asked < job.tests.length ? asked : 0 };
}
