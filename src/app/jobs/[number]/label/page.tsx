import { headers } from 'next/headers';
import { JobLabel } from '@/features/arrive/job-label';
import { Sheet, Strip } from '@/ui';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function LabelPage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  const asked = await headers();
  const host = asked.get('host') ?? 'localhost';
  const address = `${asked.get('x-forwarded-proto') ?? 'http'}://${host}/jobs/${job.number}`;
  return (
    <Sheet strip={<Strip where={`Job ${job.number} · label`} />}>
      <JobLabel job={job} address={address} />
    </Sheet>
  );
}
