import type { Answers, ImportQuestion } from '@/core/import';
import type { CaptureReading } from '@/core/usb';

export interface CaptureRequest {
  readonly file: Blob;
  readonly name: string;
  readonly answers: Answers;
}

export type CaptureReply =
  | { readonly kind: 'progress'; readonly doneBytes: number; readonly totalBytes: number }
  | { readonly kind: 'done'; readonly reading: CaptureReading; readonly notes: readonly string[] }
  | { readonly kind: 'asked'; readonly questions: readonly ImportQuestion[]; readonly notes: readonly string[] }
  | { readonly kind: 'problem'; readonly message: string };
