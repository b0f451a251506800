import type { CaptureReading } from '@/core/usb';

export interface CaptureRequest {
  readonly file: Blob;
  readonly sampleHz?: number;
}

export type CaptureReply =
  | { readonly kind: 'progress'; readonly doneBytes: number; readonly totalBytes: number }
  | { readonly kind: 'done'; readonly reading: CaptureReading }
  | { readonly kind: 'problem'; readonly words: string };
