'use client';

import { useRouter } from 'next/navigation';
import { STAGES, type JobView } from '@/core/job';
import type { EntryCommand } from '@/ui';
import { undoLast } from './actions';

/** Commands that work on every page of a job: undo, stages by number, large type, search. */
export function useJobCommands(job: Pick<JobView, 'number' | 'undoable'>): EntryCommand[] {
  const router = useRouter();
  const stages = STAGES.map(({ id, name }, i) => ({
    key: String(i + 1),
    label: name,
    quiet: true,
    run: () => router.push(`/jobs/${job.number}/${id}`),
  }));
  return [
    {
      key: 'U',
      label: job.undoable ? `undo ${job.undoable.length > 18 ? 'last' : job.undoable}` : 'undo',
      run: () => void undoLast(job.number, crypto.randomUUID()),
    },
    { key: 'B', label: 'large type', quiet: true, run: toggleLargeType },
    { key: '/', label: 'find a job', quiet: true, run: () => router.push('/jobs?find=') },
    ...stages,
  ];
}

function toggleLargeType(): void {
  const root = document.documentElement;
  if ('large' in root.dataset) delete root.dataset.large;
  else root.dataset.large = '';
}
