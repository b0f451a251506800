import type { Board } from '@/core/board';
import type { HeatPlan, ReducedModel, Station } from '@/core/heat';
import { defineWorkerTask } from '../task';

export interface ReducedRequest {
  readonly board: Board;
  readonly station: Station;
  readonly plan: HeatPlan;
}

/** Builds the reduced model of a plan's family. */
export const reducedTask = defineWorkerTask<ReducedRequest, ReducedModel>({
  worker: () => new Worker(new URL('./reduced.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The reduced model’s worker ended unexpectedly. Dragging waits for the full run.',
});
