import { HeatDesk } from '@/features/heat/heat-desk';
import { HeatMargin } from '@/features/heat/heat-margin';
import { HeatWork } from '@/features/heat/heat-work';
import { TranslateWork } from '@/features/heat/translate-work';
import { HEAT_VIEWS, heatView } from '@/features/heat/view';
import { loadStations } from '@/features/heat/queries';
import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { ViewLinks } from '@/ui';
import { jobOfPage, type JobPageProps } from '../job-page';
import { HeatLine } from './heat-line';

export default async function HeatPage(props: JobPageProps) {
  const [{ job }, stations] = await Promise.all([jobOfPage(props), loadStations()]);
  const view = heatView((await props.searchParams).view);
  return (
    <HeatDesk job={job} stations={stations} onKeep={enterEvent}>
      <JobFrame
        job={job}
        stage="heat"
        work={
          <>
            <ViewLinks label="Heat" current={view} views={HEAT_VIEWS} />
            {view === 'plan' ? <HeatWork /> : <TranslateWork />}
          </>
        }
        margin={<HeatMargin />}
        entry={<HeatLine job={{ number: job.number, undoable: job.undoable }} />}
      />
    </HeatDesk>
  );
}
