import type { FoundChecksums } from '@/core/checksum';
import { defineWorkerTask } from '../task';

/** Images of units with one layout, one to eight. */
export type ChecksumRequest = readonly Uint8Array[];

/** Searches images for checksums; tells the share that is tried. */
export const checksumTask = defineWorkerTask<ChecksumRequest, FoundChecksums, number>({
  worker: () => new Worker(new URL('./checksum.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The search’s worker ended unexpectedly. Try again.',
});
