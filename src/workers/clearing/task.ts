import type { ClearingPlan, ClearingRequest } from '@/core/clearing';
import { defineWorkerTask } from '../task';

/** Plans clearing and lifting. */
export const clearingTask = defineWorkerTask<ClearingRequest, ClearingPlan>({
  worker: () => new Worker(new URL('./clearing.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The worker that plans the clearing ended unexpectedly. Try again.',
});
