import { notFound } from 'next/navigation';
import { loadJob } from '@/features/job/queries';

/** What every page of a job gets: its number in the path, which proposed test is asked for, and what an address opens. */
export interface JobPageProps {
  readonly params: Promise<{ number: string }>;
  readonly searchParams: Promise<{ test?: string; view?: string; plan?: string; station?: string; part?: string }>;
}

type JobOfPage = NonNullable<Awaited<ReturnType<typeof loadJob>>>;

/** The job of a page, or the not-found page. */
export async function jobOfPage({
  params,
  searchParams,
}: JobPageProps): Promise<{ job: JobOfPage; testIndex: number }> {
  const number = Number((await params).number);
  const job = Number.isInteger(number) ? await loadJob(number) : undefined;
  if (!job) notFound();
  const asked = Number((await searchParams).test ?? 0);
  return { job, testIndex: asked >= 0 && asked < job.tests.length ? asked : 0 };
}
