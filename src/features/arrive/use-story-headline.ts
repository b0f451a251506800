'use client';

import { useEffect, useState } from 'react';
import type { HistoryFlag } from '@/core/diagnose';
import type { JobView } from '@/core/job';

/**
 * The headline under the story as it is being changed. What it takes to work it out comes with the first change.
 * @param keptTitle the headline under the story that is kept, worked out with the page.
 */
export function useStoryHeadline(job: JobView, history: readonly HistoryFlag[], keptTitle: string): string {
  const [shown, setShown] = useState({ history: [...(job.state.story?.history ?? [])], title: keptTitle });
  const wanted = history.join(' ');
  useEffect(() => {
    if (shown.history.join(' ') === wanted) return;
    let late = false;
    void import('./story-headline').then(
      ({ storyHeadline }) => !late && setShown({ history: [...history], title: storyHeadline(job, history) }),
      // Without it the headline stays the one of the story that is kept.
      () => undefined,
    );
    return () => {
      late = true;
    };
  }, [job, history, wanted, shown]);
  return shown.title;
}
