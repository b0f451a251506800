import type { DraftFile, DraftMade, Outcome } from '@/core/import';

/** A board's file, read and drafted. */
export type DraftRequest = DraftFile;

export type DraftReply =
  | { readonly kind: 'progress' }
  | { readonly kind: 'done'; readonly outcome: Outcome<DraftMade> }
  | { readonly kind: 'problem'; readonly message: string };
