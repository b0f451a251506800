import { BallsMargin } from '@/features/balls/balls-margin';
import { BallsWork } from '@/features/balls/balls-work';
import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function BallsPage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  return (
    <JobFrame
      job={job}
      stage="balls"
      work={<BallsWork job={job} onKeep={enterEvent} />}
      margin={<BallsMargin job={job} />}
    />
  );
}
