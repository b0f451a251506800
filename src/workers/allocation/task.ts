import type { AllocationPlan, AllocationProblem } from '@/core/allocation';
import { defineWorkerTask } from '../task';

/** Plans the queue. */
export const allocationTask = defineWorkerTask<AllocationProblem, AllocationPlan>({
  worker: () => new Worker(new URL('./allocation.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The plan’s worker ended unexpectedly. Try again.',
});
