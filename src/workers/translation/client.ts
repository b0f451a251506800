import { runInWorker, type Started } from '../run';
import type { TranslationReply, TranslationRequest } from './protocol';

/** Translates in a worker of its own. */
export function translateInWorker(request: TranslationRequest): Started<TranslationReply> {
  const worker = new Worker(new URL('./translation.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<TranslationRequest, TranslationReply>(
    worker,
    request,
    () => {},
    'The translation’s worker ended unexpectedly. Try again.',
  );
}
