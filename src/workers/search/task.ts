import type { Board } from '@/core/board';
import type { FoundPlan, HeatGoals, HeatPlan, Station } from '@/core/heat';
import { defineWorkerTask } from '../task';

export interface SearchRequest {
  readonly board: Board;
  readonly station: Station;
  readonly plan: HeatPlan;
  readonly goals: HeatGoals;
}

/** Runs that were tried, of at most how many. */
export interface SearchProgress {
  readonly tried: number;
  readonly most: number;
}

/** Searches a heat plan with more margin. */
export const searchTask = defineWorkerTask<SearchRequest, FoundPlan, SearchProgress>({
  worker: () => new Worker(new URL('./search.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The search’s worker ended unexpectedly. Try again.',
});
