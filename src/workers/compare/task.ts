import type { FoundChecksum } from '@/core/checksum';
import type { Sha256 } from '@/core/identities';
import type { ImageFamily, ProposedStretch, SeenTogether } from '@/core/image';
import type { ImageFormat } from '@/core/records';
import { defineWorkerTask } from '../task';

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

export interface SeenImages {
  readonly images: readonly OpenedImage[];
  readonly seen: SeenTogether;
  readonly proposed?: readonly ProposedStretch[];
}

/** The share that is done, and what is being done. */
export interface CompareProgress {
  readonly done: number;
  readonly message: string;
}

/** Opens images and lays them against the first. */
export const compareTask = defineWorkerTask<CompareRequest, SeenImages, CompareProgress>({
  worker: () => new Worker(new URL('./compare.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The comparison’s worker ended unexpectedly. Try again.',
});
