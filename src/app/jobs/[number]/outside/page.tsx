import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { OutsideWork } from '@/features/outside/outside-work';
import { ProbeMargin } from '@/features/probe/probe-margin';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function OutsidePage(props: JobPageProps) {
  const { job, testIndex } = await jobOfPage(props);
  return (
    <JobFrame
      job={job}
      stage="outside"
      testIndex={testIndex}
      work={<OutsideWork job={job} testIndex={testIndex} onKeep={enterEvent} />}
      margin={<ProbeMargin job={job} />}
    />
  );
}
