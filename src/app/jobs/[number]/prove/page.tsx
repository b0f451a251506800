import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { GatesMargin } from '@/features/prove/gates-margin';
import { ProveWork } from '@/features/prove/prove-work';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function ProvePage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  return (
    <JobFrame
      job={job}
      stage="prove"
      mode="volt"
      work={<ProveWork job={job} onKeep={enterEvent} />}
      margin={<GatesMargin job={job} />}
    />
  );
}
