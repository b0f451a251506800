import { runInWorker, type Started } from '../run';
import type { CompareReply, CompareRequest } from './protocol';

/** Opens images and lays them against the first, in a worker of its own. */
export function compareInWorker(
  request: CompareRequest,
  onProgress: (told: Extract<CompareReply, { kind: 'progress' }>) => void,
): Started<CompareReply> {
  const worker = new Worker(new URL('./compare.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<CompareRequest, CompareReply>(
    worker,
    request,
    onProgress,
    'The comparison’s worker ended unexpectedly. Try again.',
  );
}
