import type { CaptureReading } from '../../usb';
import type { Outcome } from '../importer';
import type { CaptureSummary } from './bank';

/** Reads a capture piece by piece: memory does not grow with its length. */
export interface CaptureStream {
  /** Takes the next piece of the file. False when reading on makes no sense. */
  push(piece: Uint8Array): boolean;
  finish(): Outcome<CaptureReading, CaptureSummary>;
}

/** A whole file through a stream. */
export function throughStream(stream: CaptureStream, bytes: Uint8Array): Outcome<CaptureReading, CaptureSummary> {
  stream.push(bytes);
  return stream.finish();
}
