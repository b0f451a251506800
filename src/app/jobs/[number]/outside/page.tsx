import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { OutsideWork } from '@/features/outside/outside-work';
import { outsidePlace, type OutsideSearch } from '@/features/outside/view';
import { ProbeSidebar } from '@/features/probe/probe-sidebar';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function OutsidePage(props: JobPageProps) {
  const { job, testIndex } = await jobOfPage(props);
  const place = outsidePlace(job, (await props.searchParams) as OutsideSearch);
  return (
    <JobFrame
      job={job}
      stage="outside"
      testIndex={testIndex}
      bareStem={place.stem}
      work={<OutsideWork job={job} place={place} testIndex={testIndex} onKeep={enterEvent} />}
      sidebar={<ProbeSidebar job={job} />}
    />
  );
}
