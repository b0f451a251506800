import type { FoundChecksums } from '@/core/checksum';

/** Images of units with one layout, one to eight. Cancelling ends the worker. */
export interface ChecksumRequest {
  readonly images: readonly Uint8Array[];
}

export type ChecksumReply =
  | { readonly kind: 'progress'; readonly done: number; readonly tookMs: number }
  | { readonly kind: 'found'; readonly found: FoundChecksums; readonly tookMs: number }
  | { readonly kind: 'problem'; readonly message: string };
