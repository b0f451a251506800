import type { Board } from '@/core/board';
import type { HeatGoals, HeatPlan, HeatRun, HeatVerdict, Station } from '@/core/heat';

/** One run: plain data in, plain data out. A worker serves one run at a time; cancelling ends the worker. */
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

export type HeatReply =
  | { readonly kind: 'progress'; readonly doneS: number; readonly totalS: number }
  | {
      readonly kind: 'done';
      readonly plan: HeatPlan;
      readonly run: HeatRun;
      readonly verdict: HeatVerdict;
      readonly tookMs: number;
    }
  | { readonly kind: 'problem'; readonly message: string };
