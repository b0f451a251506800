import type { Board } from '@/core/board';
import type { HeatPlan, Station, Translation } from '@/core/heat';
import { defineWorkerTask } from '../task';

export interface TranslationRequest {
  readonly board: Board;
  readonly theirs: Station;
  readonly ours: Station;
  readonly plan: HeatPlan;
}

/** Settings of another station for this one. */
export const translationTask = defineWorkerTask<TranslationRequest, Translation>({
  worker: () => new Worker(new URL('./translation.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The translation’s worker ended unexpectedly. Try again.',
});
