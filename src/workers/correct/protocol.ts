import type { Correction, RunNow, Sight } from '@/core/run';

/** A run at a moment, and what was seen there. */
export interface CorrectRequest {
  readonly now: RunNow;
  readonly sight: Sight;
}

export type CorrectReply =
  { readonly kind: 'done'; readonly correction: Correction } | { readonly kind: 'problem'; readonly message: string };
