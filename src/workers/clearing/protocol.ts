import type { ClearingPlan, ClearingRequest } from '@/core/clearing';

export type { ClearingRequest };

export type ClearingReply =
  | { readonly kind: 'progress' }
  | { readonly kind: 'done'; readonly plan: ClearingPlan; readonly tookMs: number }
  | { readonly kind: 'problem'; readonly message: string };
