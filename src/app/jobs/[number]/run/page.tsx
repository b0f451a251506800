import { enterEvent } from '@/features/job/actions';
import { loadGoals, loadStations } from '@/features/heat/queries';
import { RunScreen } from '@/features/run/run-screen';
import { jobOfPage, type JobPageProps } from '../job-page';

export default async function RunPage(props: JobPageProps) {
  const [{ job }, stations, goals] = await Promise.all([jobOfPage(props), loadStations(), loadGoals()]);
  return <RunScreen job={job} stations={stations} goals={goals} onKeep={enterEvent} />;
}
