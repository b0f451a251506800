import type { Sha256 } from '../../identities';
import { sha256Hex } from '../../image';
import { flatten, type Chunk, type LoadedImage } from '../../records';

export interface FirmwareSummary {
  readonly kind: 'firmware';
  readonly format: string;
  /** Lines that are records; 0 for a raw file. */
  readonly records: number;
  /** From the first byte to the last, holes included. */
  readonly spanBytes: number;
  /** Bytes that the file gives. */
  readonly bytes: number;
  readonly firstAddress: number;
  readonly holes: readonly { readonly address: number; readonly bytes: number }[];
  /** Of the bytes laid out from the first address on, holes filled with FF. */
  readonly sha256: Sha256;
}

const HOLES_SHOWN = 50;

export function firmwareSummary(format: string, image: Pick<LoadedImage, 'chunks' | 'lines'>): FirmwareSummary {
  const flat = flatten(image.chunks);
  return {
    kind: 'firmware',
    format,
    records: image.lines.length,
    spanBytes: flat.bytes.length,
    bytes: image.chunks.reduce((sum, c) => sum + c.bytes.length, 0),
    firstAddress: flat.address,
    holes: holesOf(image.chunks).slice(0, HOLES_SHOWN),
    sha256: sha256Hex(flat.bytes),
  };
}

const holesOf = (chunks: readonly Chunk[]): { address: number; bytes: number }[] =>
  chunks.slice(1).map((chunk, i) => {
    const address = chunks[i].address + chunks[i].bytes.length;
    return { address, bytes: chunk.address - address };
  });

/** What is unusual in an image, a sentence each. */
export function firmwareNotes(chunks: readonly Chunk[], given: readonly string[]): string[] {
  const holes = holesOf(chunks);
  const first = chunks[0]?.bytes[0];
  const blank =
    chunks.length > 0 && chunks.every((c) => c.bytes.every((b) => b === first)) && (first === 0 || first === 255);
  return [
    ...given,
    ...(holes.length > 0
      ? [
          `${holes.length} ${holes.length === 1 ? 'hole' : 'holes'}, ${holes.reduce((s, h) => s + h.bytes, 0)} bytes: kept as holes.`,
        ]
      : []),
    ...(blank ? [`Every byte is ${first === 0 ? '00' : 'FF'}: a blank chip or a read that failed.`] : []),
  ];
}
