/** Bytes at an address, as one run without a hole. */
export interface Chunk {
  readonly address: number;
  readonly bytes: Uint8Array;
}

export type ImageFormat = 'raw' | 'intel-hex' | 's-record';

/** What a file of records says beyond its bytes, so that it can be written again as it was. */
export interface RecordLine {
  /** Record type of its format: 0 to 5 in Intel HEX, 0 to 9 in S-records. */
  readonly type: number;
  /** As it stands in the record. */
  readonly address: number;
  readonly data: Uint8Array;
  /** Hexadecimal letters of the line are small. */
  readonly lower: boolean;
}

export interface Remark {
  readonly before: number;
  readonly text: string;
}

/** An image as it came from a file: its bytes with their holes, and the records they came in. */
export interface LoadedImage {
  readonly format: ImageFormat;
  /** Ascending, apart and not empty. */
  readonly chunks: readonly Chunk[];
  /** Empty for raw files. */
  readonly lines: readonly RecordLine[];
  /** Lines that are no records, such as comments: the text, and the number of records before it. */
  readonly remarks: readonly Remark[];
  /** What is unusual in the file, a sentence each. */
  readonly notes: readonly string[];
  /** What ends each line. */
  readonly newline: '\n' | '\r\n' | '\r';
  /** Where the program begins, where a record says it. */
  readonly startAddress?: number;
  /** The file ends with a line break. */
  readonly endsWithNewline: boolean;
}

/** Bytes laid out from the first address, holes filled. */
export function flatten(
  chunks: readonly Chunk[],
  fill = 0xff,
): { readonly address: number; readonly bytes: Uint8Array } {
  if (chunks.length === 0) return { address: 0, bytes: new Uint8Array() };
  const address = chunks[0].address;
  const last = chunks[chunks.length - 1];
  const bytes = new Uint8Array(last.address + last.bytes.length - address).fill(fill);
  for (const chunk of chunks) bytes.set(chunk.bytes, chunk.address - address);
  return { address, bytes };
}

/** Pieces put together: ascending, neighbours joined; pieces that lie over one another are told by their address. */
export function joined(pieces: readonly Chunk[]): { readonly chunks: Chunk[]; readonly twiceAt?: number } {
  const filled = pieces.filter((p) => p.bytes.length > 0);
  // Files are nearly always in order: half a million pieces are looked at once, not sorted.
  const inOrder = filled.every((p, i) => i === 0 || p.address >= filled[i - 1].address);
  const sorted = inOrder ? filled : [...filled].sort((a, b) => a.address - b.address);
  const groups: Chunk[][] = [];
  let end = -1;
  for (const piece of sorted) {
    if (piece.address < end) return { chunks: [], twiceAt: piece.address };
    if (piece.address === end) groups[groups.length - 1].push(piece);
    else groups.push([piece]);
    end = piece.address + piece.bytes.length;
  }
  return { chunks: groups.map((group) => ({ address: group[0].address, bytes: flatten(group).bytes })) };
}
