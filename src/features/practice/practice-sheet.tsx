import type { Business } from '@/core/day';
import type { Practice } from '@/core/diagnose';
import type { ReportWords } from '@/core/job';
import { ViewLinks } from '@/ui';
import { BusinessPart } from './business-part';
import { PartsPart } from './parts-part';
import { PlacePart } from './place-part';
import { ReadingsPart } from './readings-part';
import { ReportPart } from './report-part';
import { StoryPart } from './story-part';
import { PRACTICE_VIEWS, type PracticeView } from './view';

const PARTS: Readonly<Record<'readings' | 'story' | 'parts', typeof ReadingsPart>> = {
  readings: ReadingsPart,
  story: StoryPart,
  parts: PartsPart,
};

/** What this bench has settled for itself: error rates, what the story changes, what parts and time cost. */
export function PracticeSheet({
  practice,
  reportWords,
  business,
  view,
}: {
  practice: Practice;
  reportWords: ReportWords;
  business: Business;
  view: PracticeView;
}) {
  const Part = view === 'report' || view === 'place' || view === 'business' ? undefined : PARTS[view];
  return (
    <>
      <ViewLinks
        label="Practice"
        current={view}
        views={PRACTICE_VIEWS.map(([id, name]) => ({ id, name, href: `?view=${id}` }))}
      />
      {Part && <Part practice={practice} />}
      {view === 'business' && <BusinessPart business={business} />}
      {view === 'report' && <ReportPart words={reportWords} />}
      {view === 'place' && <PlacePart timeZones={Intl.supportedValuesOf('timeZone')} />}
    </>
  );
}
