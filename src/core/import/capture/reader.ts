import type { CaptureReading } from '../../usb';
import { MIB, refused, type Answers, type Outcome } from '../importer';
import { captureArchive } from './archive';
import type { CaptureSummary } from './bank';
import { joined } from './bytes';
import { captureDump, DumpStream } from './dump';
import type { CaptureStream } from './stream';
import { TableStream } from './table';

/** Pieces are put together only until the kind of file is known. */
const SNIFF_BYTES = 4096;
const MOST_ARCHIVE = 256 * MIB;

/** Reads a capture of any kind piece by piece; the first bytes tell which. */
export class CaptureReader implements CaptureStream {
  private beginning: Uint8Array<ArrayBufferLike> = new Uint8Array(0);
  private inner?: CaptureStream;

  constructor(
    private readonly name: string,
    private readonly answers: Answers = {},
  ) {}

  push(piece: Uint8Array): boolean {
    if (this.inner) return this.inner.push(piece);
    this.beginning = joined(this.beginning, piece);
    return this.beginning.length < SNIFF_BYTES || this.begin();
  }

  finish(): Outcome<CaptureReading, CaptureSummary> {
    if (this.beginning.length === 0) return refused('Expected a capture; got an empty file.');
    if (!this.inner) this.begin();
    return this.inner!.finish();
  }

  private begin(): boolean {
    const file = { name: this.name, bytes: this.beginning };
    this.inner =
      captureArchive.score(file) > 0
        ? new ArchiveStream(this.name, this.answers)
        : captureDump.score(file) > 0
          ? new DumpStream(this.answers)
          : new TableStream(this.answers);
    return this.inner.push(this.beginning);
  }
}

/** A capture that is in memory, read at once; the rate is that of files without times. */
export function readCapture(bytes: Uint8Array, rateHz?: number): Outcome<CaptureReading, CaptureSummary> {
  const reader = new CaptureReader('capture', rateHz === undefined ? {} : { rate: String(rateHz) });
  reader.push(bytes);
  return reader.finish();
}

/** An archive is read whole: its list of contents stands at its end. */
class ArchiveStream implements CaptureStream {
  private readonly pieces: Uint8Array[] = [];
  private bytes = 0;

  constructor(
    private readonly name: string,
    private readonly answers: Answers,
  ) {}

  push(piece: Uint8Array): boolean {
    this.bytes += piece.length;
    if (this.bytes > MOST_ARCHIVE) return false;
    this.pieces.push(piece.slice());
    return true;
  }

  finish(): Outcome<CaptureReading, CaptureSummary> {
    if (this.bytes > MOST_ARCHIVE) return refused(`Expected at most ${MOST_ARCHIVE / MIB} MiB of archive; got more.`);
    const whole = new Uint8Array(this.bytes);
    let at = 0;
    for (const piece of this.pieces) {
      whole.set(piece, at);
      at += piece.length;
    }
    return captureArchive.read({ name: this.name, bytes: whole }, this.answers);
  }
}
