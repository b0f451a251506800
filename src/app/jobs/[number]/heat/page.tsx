import { HeatDesk } from '@/features/heat/heat-desk';
import { HeatMargin } from '@/features/heat/heat-margin';
import { HeatWork } from '@/features/heat/heat-work';
import { TranslateWork } from '@/features/heat/translate-work';
import { HEAT_VIEWS, heatView } from '@/features/heat/view';
import { loadGoals, loadStations } from '@/features/heat/queries';
import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { planOfLink } from '@/core/heat';
import { problemText } from '@/core/result';
import { ProblemNote, ViewLinks } from '@/ui';
import { jobOfPage, type JobPageProps } from '../job-page';
import { HeatLine } from './heat-line';

export default async function HeatPage(props: JobPageProps) {
  const [{ job }, stations, goals] = await Promise.all([jobOfPage(props), loadStations(), loadGoals()]);
  const { view: asked, plan, station } = await props.searchParams;
  const view = heatView(asked);
  const opened = plan ? planOfLink(plan) : undefined;
  return (
    <HeatDesk
      job={job}
      stations={stations}
      goals={goals}
      opened={{ plan: opened?.ok ? opened.value : undefined, stationId: station }}
      onKeep={enterEvent}
    >
      <JobFrame
        job={job}
        stage="heat"
        work={
          <>
            {opened && !opened.ok && <ProblemNote text={problemText(opened.problems)} />}
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
