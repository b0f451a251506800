import { GoalsWork } from '@/features/heat/goals-work';
import { HeatDesk } from '@/features/heat/heat-desk';
import { HeatMargin } from '@/features/heat/heat-margin';
import { HeatWork } from '@/features/heat/heat-work';
import { TranslateWork } from '@/features/heat/translate-work';
import { HEAT_VIEWS, heatView, openedBy } from '@/features/heat/view';
import { loadGoals, loadStations } from '@/features/heat/queries';
import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { ProblemNote, ViewLinks } from '@/ui';
import { jobOfPage, type JobPageProps } from '../job-page';
import { HeatLine } from './heat-line';

export default async function HeatPage(props: JobPageProps) {
  const [{ job }, stations, goals] = await Promise.all([jobOfPage(props), loadStations(), loadGoals()]);
  const asked = await props.searchParams;
  const view = heatView(asked.view);
  const opened = openedBy(asked);
  return (
    <HeatDesk job={job} stations={stations} goals={goals} opened={opened} onKeep={enterEvent}>
      <JobFrame
        job={job}
        stage="heat"
        work={
          <>
            {opened.problem && <ProblemNote text={opened.problem} />}
            <ViewLinks label="Heat" current={view} views={HEAT_VIEWS} />
            {view === 'plan' && <HeatWork />}
            {view === 'foreign' && <TranslateWork />}
            {view === 'goals' && <GoalsWork goals={goals} />}
          </>
        }
        margin={<HeatMargin />}
        entry={<HeatLine job={{ number: job.number, undoable: job.undoable }} />}
      />
    </HeatDesk>
  );
}
