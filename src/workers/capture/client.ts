import { runInWorker, type Started } from '../run';
import type { CaptureReply, CaptureRequest } from './protocol';

/** Decodes a capture in a worker of its own. */
export function decodeCapture(request: CaptureRequest, onProgress: (share: number) => void): Started<CaptureReply> {
  const worker = new Worker(new URL('./capture.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<CaptureRequest, CaptureReply>(
    worker,
    request,
    ({ doneBytes, totalBytes }) => onProgress(doneBytes / totalBytes),
    'The decoder’s worker ended unexpectedly. Try the file again.',
  );
}
