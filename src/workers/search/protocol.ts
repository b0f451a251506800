import type { Board } from '@/core/board';
import type { FoundPlan, HeatGoals, HeatPlan, Station } from '@/core/heat';

/** One search: plain data in, plain data out. Cancelling ends the worker. */
export interface SearchRequest {
  readonly board: Board;
  readonly station: Station;
  readonly plan: HeatPlan;
  readonly goals: HeatGoals;
}

export type SearchReply =
  | { readonly kind: 'progress'; readonly tried: number; readonly most: number; readonly tookMs: number }
  | { readonly kind: 'done'; readonly found: FoundPlan }
  | { readonly kind: 'problem'; readonly message: string };
