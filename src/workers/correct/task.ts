import type { Correction, RunNow, Sight } from '@/core/run';
import { defineWorkerTask } from '../task';

/** A run at a moment, and what was seen there. */
export interface CorrectRequest {
  readonly now: RunNow;
  readonly sight: Sight;
}

/** Works out how a run goes on after what was seen. */
export const correctTask = defineWorkerTask<CorrectRequest, Correction>({
  worker: () => new Worker(new URL('./correct.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The correction’s worker ended unexpectedly. Not swimming: do not pull; air away if in doubt.',
});
