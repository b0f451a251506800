import type { OpeningPlan } from '@/core/heat';

/** Told while it looks: the best plan so far. The request is a search's. */
export type OpeningReply =
  | { readonly kind: 'progress'; readonly found: OpeningPlan }
  | { readonly kind: 'done'; readonly found: OpeningPlan; readonly tookMs: number }
  | { readonly kind: 'problem'; readonly message: string };
