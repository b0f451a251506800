import { DecideWork } from '@/features/decide/decide-work';
import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { ProbeMargin } from '@/features/probe/probe-margin';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function DecidePage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  return (
    <JobFrame
      job={job}
      stage="decide"
      work={<DecideWork job={job} onKeep={enterEvent} />}
      margin={<ProbeMargin job={job} />}
    />
  );
}
