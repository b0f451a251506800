import { enterEvent } from '@/features/job/actions';
import { RunScreen } from '@/features/run/run-screen';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function RunPage(props: JobPageProps) {
  const { job } = await jobOfPage(props);
  return <RunScreen job={job} onKeep={enterEvent} />;
}
