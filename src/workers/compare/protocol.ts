import type { Sha256 } from '@/core/identities';
import type { ImageFamily, ProposedStretch, SeenTogether } from '@/core/image';
import type { FoundChecksum } from '@/core/checksum';
import type { ImageFormat } from '@/core/records';

/** Images to open: as files or fetched, in any format. The first is what the others are laid against. */
export interface CompareRequest {
  readonly files: readonly { readonly name: string; readonly content: Blob }[];
  readonly family?: ImageFamily;
  /** Stretches of each overview. */
  readonly stretches: number;
  /** Checksums that were found, for a proposed map of the first image; left out where none is wanted. */
  readonly propose?: readonly FoundChecksum[];
}

export interface OpenedImage {
  readonly format: ImageFormat;
  readonly sha256: Sha256;
  /** Holes filled with FF. */
  readonly bytes: Uint8Array;
}

export type CompareReply =
  | { readonly kind: 'progress'; readonly done: number; readonly message: string }
  | {
      readonly kind: 'seen';
      readonly images: readonly OpenedImage[];
      readonly seen: SeenTogether;
      readonly proposed?: readonly ProposedStretch[];
      readonly tookMs: number;
    }
  | { readonly kind: 'problem'; readonly message: string };
