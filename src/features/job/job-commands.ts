'use client';

import { useRouter } from 'next/navigation';
import { STAGES, type JobView } from '@/core/job';
import type { EntryCommand } from '@/ui';
import { undoLast } from './actions';

/** Commands that work on every page of a job: undo, large type, a stage by its number. */
export function useJobCommands(job: Pick<JobView, 'number' | 'undoable'>): EntryCommand[] {
  const router = useRouter();
  const stages = STAGES.map(({ id, name }, i) => ({
    key: String(i + 1),
    label: name,
    run: () => router.push(`/jobs/${job.number}/${id}`),
  }));
  return [
    {
      key: 'U',
      label: job.undoable ? `undo ${job.undoable.length > 18 ? 'last' : job.undoable}` : 'undo',
      run: () => void undoLast(job.number, crypto.randomUUID()),
    },
    { key: 'B', label: 'large type', quiet: true, run: toggleLargeType },
    // A digit begins a value: it names a stage only after the key that asks for one.
    { key: 'G', label: 'Go to a stage', quiet: true, choices: stages },
  ];
}

function toggleLargeType(): void {
  const root = document.documentElement;
  if ('large' in root.dataset) delete root.dataset.large;
  else root.dataset.large = '';
}
