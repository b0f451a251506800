import { HeatDesk } from '@/features/heat/heat-desk';
import { HeatMargin } from '@/features/heat/heat-margin';
import { HeatWork } from '@/features/heat/heat-work';
import { loadStations } from '@/features/heat/queries';
import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { jobOfPage, type JobPageProps } from '../job-page';
import { HeatLine } from './heat-line';

export default async function HeatPage(props: JobPageProps) {
  const [{ job }, stations] = await Promise.all([jobOfPage(props), loadStations()]);
  return (
    <HeatDesk job={job} stations={stations} onKeep={enterEvent}>
      <JobFrame
        job={job}
        stage="heat"
        work={<HeatWork />}
        margin={<HeatMargin />}
        entry={<HeatLine job={{ number: job.number, undoable: job.undoable }} />}
      />
    </HeatDesk>
  );
}
