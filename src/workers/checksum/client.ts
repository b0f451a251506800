import { runInWorker, type Started } from '../run';
import type { ChecksumReply, ChecksumRequest } from './protocol';

/** Searches images for checksums in a worker of its own. */
export function checksumsInWorker(
  request: ChecksumRequest,
  onProgress: (told: Extract<ChecksumReply, { kind: 'progress' }>) => void,
): Started<ChecksumReply> {
  const worker = new Worker(new URL('./checksum.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<ChecksumRequest, ChecksumReply>(
    worker,
    request,
    onProgress,
    'The search’s worker ended unexpectedly. Try again.',
  );
}
