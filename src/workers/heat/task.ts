import type { Board } from '@/core/board';
import type { HeatGoals, HeatPlan, HeatRun, HeatVerdict, Station } from '@/core/heat';
import { defineWorkerTask } from '../task';

export interface HeatRequest {
  readonly board: Board;
  readonly station: Station;
  readonly plan: HeatPlan;
  readonly goals: HeatGoals;
  /** Set the dial first, so that the coldest joint just gets hot enough. */
  readonly aim: boolean;
  /** On a coarse mesh and without pictures: where only the difference between runs counts. */
  readonly coarse?: boolean;
}

export interface HeatAnswer {
  readonly plan: HeatPlan;
  readonly run: HeatRun;
  readonly verdict: HeatVerdict;
}

/** Seconds of the plan that are simulated, of how many. */
export interface HeatProgress {
  readonly doneS: number;
  readonly totalS: number;
}

/** Simulates a heat plan. */
export const heatTask = defineWorkerTask<HeatRequest, HeatAnswer, HeatProgress>({
  worker: () => new Worker(new URL('./heat.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The simulation’s worker ended unexpectedly. Change the plan or try again.',
  idle: 2,
});
