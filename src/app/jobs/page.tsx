import { JobList } from '@/features/jobs/job-list';
import { loadJobPage } from '@/features/jobs/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function JobsPage({
  searchParams,
}: {
  searchParams: Promise<{ find?: string | string[]; page?: string }>;
}) {
  const { find, page } = await searchParams;
  const words = (Array.isArray(find) ? find.join(' ') : find) ?? '';
  const at = Number(page ?? 0);
  return (
    <Sheet strip={<Strip where="All jobs" />}>
      <JobList list={await loadJobPage(words, Number.isInteger(at) && at > 0 ? at : 0)} focus={find !== undefined} />
    </Sheet>
  );
}
