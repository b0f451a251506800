import { notFound, redirect } from 'next/navigation';
import { findJobView, isJob } from '@/features/job/queries';
import { Headline, Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

/** A job that cannot be shown: why, and that nothing of it is lost. */
export default async function UnreadablePage({ params }: { params: Promise<{ number: string }> }) {
  const number = Number((await params).number);
  if (!(await isJob(number))) notFound();
  const found = await findJobView(number);
  if (found.ok) redirect(`/jobs/${number}`);
  return (
    <Sheet strip={<Strip where={`Job ${String(number).padStart(4, '0')}`} />}>
      <Headline title="This job cannot be shown" aside={`job ${number}`}>
        {found.problems[0].message} Its record is as it was; once the board’s file can be read again, so can the job.
      </Headline>
    </Sheet>
  );
}
