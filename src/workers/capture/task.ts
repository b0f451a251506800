import type { Answers, ImportQuestion } from '@/core/import';
import type { CaptureReading } from '@/core/usb';
import { defineWorkerTask } from '../task';

export interface CaptureRequest {
  readonly file: Blob;
  readonly name: string;
  readonly answers: Answers;
}

/** What was read, or what has to be asked first. */
export interface CaptureOutcome {
  readonly reading?: CaptureReading;
  readonly questions: readonly ImportQuestion[];
  readonly notes: readonly string[];
}

/** Decodes a capture; tells the share that is read. */
export const captureTask = defineWorkerTask<CaptureRequest, CaptureOutcome, number>({
  worker: () => new Worker(new URL('./capture.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The decoder’s worker ended unexpectedly. Try the file again.',
});
