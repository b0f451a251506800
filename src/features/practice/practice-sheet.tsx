import type { Practice } from '@/core/diagnose';
import { ViewLinks } from '@/ui';
import { PartsPart } from './parts-part';
import { ReadingsPart } from './readings-part';
import { StoryPart } from './story-part';
import { PRACTICE_VIEWS, type PracticeView } from './view';

const PARTS = { readings: ReadingsPart, story: StoryPart, parts: PartsPart };

/** What this bench has settled for itself: error rates, what the story changes, what parts and time cost. */
export function PracticeSheet({ practice, view }: { practice: Practice; view: PracticeView }) {
  const Part = PARTS[view];
  return (
    <>
      <ViewLinks
        label="Practice"
        current={view}
        views={PRACTICE_VIEWS.map(([id, name]) => ({ id, name, href: `?view=${id}` }))}
      />
      <Part practice={practice} />
    </>
  );
}
