import type { OpeningPlan } from '@/core/heat';
import type { SearchRequest } from '../search/task';
import { defineWorkerTask } from '../task';

/** Looks for a plan that holds; tells every better one at once. */
export const openingTask = defineWorkerTask<SearchRequest, OpeningPlan, OpeningPlan>({
  worker: () => new Worker(new URL('./opening.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The worker that looks for a plan ended unexpectedly. Search a plan by hand.',
});
