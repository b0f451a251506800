import type { Board } from '@/core/board';
import type { HeatPlan, ReducedModel, Station } from '@/core/heat';

/** The reduced model of a plan's family: plain data in, plain data out. */
export interface ReducedRequest {
  readonly board: Board;
  readonly station: Station;
  readonly plan: HeatPlan;
}

export type ReducedReply =
  | { readonly kind: 'progress' }
  | { readonly kind: 'done'; readonly model: ReducedModel }
  | { readonly kind: 'problem'; readonly message: string };
