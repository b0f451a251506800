import { BallsSidebar } from '@/features/balls/balls-sidebar';
import { BallsWork } from '@/features/balls/balls-work';
import { loadSiteBench } from '@/features/balls/queries';
import { ballsView } from '@/features/balls/view';
import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function BallsPage(props: JobPageProps) {
  const [{ job }, bench, asked] = await Promise.all([jobOfPage(props), loadSiteBench(), props.searchParams]);
  const view = ballsView(asked.view);
  return (
    <JobFrame
      job={job}
      stage="balls"
      work={<BallsWork job={job} bench={bench} view={view} asked={asked.part} onKeep={enterEvent} />}
      sidebar={<BallsSidebar job={job} bench={bench} view={view} asked={asked.part} />}
    />
  );
}
