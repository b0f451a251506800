import type { Board } from '@/core/board';
import type { HeatPlan, Station, Translation } from '@/core/heat';

/** Settings of another station for this one: plain data in, plain data out. Cancelling ends the worker. */
export interface TranslationRequest {
  readonly board: Board;
  readonly theirs: Station;
  readonly ours: Station;
  readonly plan: HeatPlan;
}

export type TranslationReply =
  | { readonly kind: 'progress' }
  | { readonly kind: 'done'; readonly translation: Translation; readonly tookMs: number }
  | { readonly kind: 'problem'; readonly message: string };
