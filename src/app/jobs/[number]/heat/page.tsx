import type { Bakeable } from '@/features/heat/bake-work';
import { HeatDesk } from '@/features/heat/heat-desk';
import { HeatSidebar } from '@/features/heat/heat-sidebar';
import { HeatWork } from '@/features/heat/heat-work';
import { BakeWork, GoalsWork, TranslateWork } from '@/features/heat/other-views';
import { HEAT_VIEWS, heatView, openedBy } from '@/features/heat/view';
import { loadGoals, loadStations } from '@/features/heat/queries';
import { enterEvent } from '@/features/job/actions';
import { JobFrame } from '@/features/job/job-frame';
import { loadShelf, type Shelf } from '@/features/stock/queries';
import { ProblemNote, ViewLinks } from '@/ui';
import { jobOfPage, type JobPageProps } from '../job-page';
import { HeatLine } from './heat-line';

export default async function HeatPage(props: JobPageProps) {
  const [{ job }, stations, goals] = await Promise.all([jobOfPage(props), loadStations(), loadGoals()]);
  const asked = await props.searchParams;
  const view = heatView(asked.view);
  const opened = openedBy(asked);
  const shelf = view === 'bake' ? await loadShelf() : undefined;
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
            {shelf && <BakeWork stock={bakeable(shelf)} />}
            {view === 'goals' && <GoalsWork goals={goals} />}
          </>
        }
        sidebar={<HeatSidebar />}
        entry={<HeatLine job={{ number: job.number, undoable: job.undoable }} />}
      />
    </HeatDesk>
  );
}

/** Lots that are not empty, and every loose chip. */
const bakeable = ({ lots, trays }: Shelf): Bakeable[] => [
  ...lots
    .filter((l) => l.left > 0)
    .map(({ id, what, left, moisture }) => ({ id, what, where: `lot, ${left} left`, moisture })),
  ...trays.flatMap((t) => t.chips.map(({ id, what, moisture }) => ({ id, what, where: t.title, moisture }))),
];
