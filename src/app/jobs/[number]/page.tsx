import { redirect } from 'next/navigation';
import { jobOfPage, type JobPageProps } from './job-page';

/** A job opens where its next step is. */
export default async function JobPage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  redirect(`/jobs/${job.number}/${job.next.stage}`);
}
