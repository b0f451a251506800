import { CloseWork } from '@/features/close/close-work';
import { isLessonKept } from '@/features/close/queries';
import { JobFrame } from '@/features/job/job-frame';
import { GatesSidebar } from '@/features/prove/gates-sidebar';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function ClosePage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  return (
    <JobFrame
      job={job}
      stage="close"
      work={<CloseWork job={job} isLessonKept={await isLessonKept(job.number, job.priorClosures.length)} />}
      sidebar={<GatesSidebar job={job} />}
    />
  );
}
