import { JobFrame } from '@/features/job/job-frame';
import { ProbeSidebar } from '@/features/probe/probe-sidebar';
import { loadBoardPhotos } from '@/features/probe/queries';
import { ProbeWork } from '@/features/probe/probe-work';
import { probeView } from '@/features/probe/view';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function ProbePage(props: JobPageProps) {
  const { job, testIndex } = await jobOfPage(props);
  const [{ view }, photos] = await Promise.all([props.searchParams, loadBoardPhotos(job.board.id)]);
  return (
    <JobFrame
      job={job}
      stage="probe"
      testIndex={testIndex}
      work={<ProbeWork job={job} testIndex={testIndex} view={probeView(view)} photos={photos} />}
      sidebar={<ProbeSidebar job={job} />}
    />
  );
}
