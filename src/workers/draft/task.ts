import type { DraftFile, DraftMade, Outcome } from '@/core/import';
import { defineWorkerTask } from '../task';

/** Reads and drafts a board's file: a board of thousands of parts takes seconds. */
export const draftTask = defineWorkerTask<DraftFile, Outcome<DraftMade>>({
  worker: () => new Worker(new URL('./draft.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The worker that reads the board ended unexpectedly.',
});
