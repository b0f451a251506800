import type { AllocationPlan, AllocationProblem } from '@/core/allocation';

/** One plan: plain data in, plain data out. Cancelling ends the worker. */
export interface AllocationRequest {
  readonly problem: AllocationProblem;
}

export type AllocationReply =
  | { readonly kind: 'progress' }
  | { readonly kind: 'done'; readonly plan: AllocationPlan; readonly tookMs: number }
  | { readonly kind: 'problem'; readonly message: string };
