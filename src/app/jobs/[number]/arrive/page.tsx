import { ArriveMargin } from '@/features/arrive/arrive-margin';
import { ArriveWork } from '@/features/arrive/arrive-work';
import { JobFrame } from '@/features/job/job-frame';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function ArrivePage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  return <JobFrame job={job} stage="arrive" work={<ArriveWork job={job} />} margin={<ArriveMargin job={job} />} />;
}
