import { JobList } from '@/features/jobs/job-list';
import { loadJobs } from '@/features/jobs/queries';
import { Sheet, Strip } from '@/ui';

export default async function JobsPage({ searchParams }: { searchParams: Promise<{ find?: string }> }) {
  const [jobs, { find }] = await Promise.all([loadJobs(), searchParams]);
  return (
    <Sheet strip={<Strip where="All jobs" />}>
      <JobList jobs={jobs} find={find ?? ''} focus={find !== undefined} />
    </Sheet>
  );
}
