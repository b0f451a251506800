import { fail, ok, type Result } from '../result';
import { intelHexLine, intelHexRecords, readIntelHex } from './intel-hex';
import { isRemark } from './lines';
import type { Chunk, ImageFormat, LoadedImage } from './memory';
import { readSRecords, sRecordLine, sRecords } from './s-record';

/** Larger images are refused: no part of this work holds more. */
export const MOST_IMAGE_BYTES = 64 * 1024 * 1024;
/** Three characters to a byte and some for each line. */
const MOST_TEXT_BYTES = 4 * MOST_IMAGE_BYTES;
const PEEK_BYTES = 4096;

/** What a file holds, by its content: its first line that is no comment tells. */
export function formatOf(bytes: Uint8Array): ImageFormat {
  let peek = '';
  for (let k = 0; k < Math.min(PEEK_BYTES, bytes.length); k++) peek += String.fromCharCode(bytes[k]);
  const lines = peek.replace(/^(?:ï»¿)?\s+|^ï»¿/, '').split(/[\r\n]+/);
  const first = (lines.find((line) => !isRemark(line.trim())) ?? '').trim();
  if (/^:[0-9a-fA-F]{10}/.test(first)) return 'intel-hex';
  return /^S[0-9][0-9a-fA-F]{6}/.test(first) ? 's-record' : 'raw';
}

/** Opens an image file, raw or of records, by its content. */
export function loadImage(file: Uint8Array): Result<LoadedImage> {
  const format = formatOf(file);
  if (file.length === 0) return fail('Expected an image; the file is empty.');
  if (format === 'raw') {
    if (file.length > MOST_IMAGE_BYTES) return tooLarge(file.length);
    return ok({
      format,
      chunks: [{ address: 0, bytes: file }],
      lines: [],
      remarks: [],
      notes: [],
      newline: '\n',
      endsWithNewline: true,
    });
  }
  if (file.length > MOST_TEXT_BYTES) return tooLarge(file.length);
  const text = new TextDecoder().decode(file);
  const loaded = format === 'intel-hex' ? readIntelHex(text) : readSRecords(text);
  if (!loaded.ok) return loaded;
  const { chunks } = loaded.value;
  const last = chunks[chunks.length - 1];
  const span = last ? last.address + last.bytes.length - chunks[0].address : 0;
  return span > MOST_IMAGE_BYTES ? tooLarge(span) : loaded;
}

const tooLarge = (bytes: number): Result<never> =>
  fail(`Expected at most ${MOST_IMAGE_BYTES / 2 ** 20} MiB; got ${(bytes / 2 ** 20).toFixed(1)}.`);

export interface SaveOptions {
  readonly lineBytes?: number;
  readonly startAddress?: number;
}

/** Usual length of a line. Common practice, no source. */
const LINE_BYTES = 16;

/** Bytes at addresses as a file of a format; raw has no holes and no start address. */
export function saveImage(
  chunks: readonly Chunk[],
  format: Exclude<ImageFormat, 'raw'>,
  options: SaveOptions = {},
): string {
  const lineBytes = options.lineBytes ?? LINE_BYTES;
  const [records, lineOf] =
    format === 'intel-hex'
      ? [intelHexRecords(chunks, lineBytes, options.startAddress), intelHexLine]
      : [sRecords(chunks, lineBytes, options.startAddress), sRecordLine];
  return records.map(lineOf).join('\n') + '\n';
}

/** A file of records again as it was read, comments in their places. */
export function asItWas({ format, lines, remarks, newline, endsWithNewline }: LoadedImage): string {
  const lineOf = format === 'intel-hex' ? intelHexLine : sRecordLine;
  const out: string[] = [];
  let remark = 0;
  lines.forEach((line, k) => {
    while (remark < remarks.length && remarks[remark].before <= k) out.push(remarks[remark++].text);
    out.push(lineOf(line));
  });
  for (; remark < remarks.length; remark++) out.push(remarks[remark].text);
  return out.join(newline) + (endsWithNewline ? newline : '');
}
