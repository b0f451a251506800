import { figure, mark, readFields, writeFields, type Layout } from './layout';

/** Head of an extended message's data. Source: USB Power Delivery specification, section 6.2.1.2. */
export interface ExtendedHeader {
  readonly chunked: boolean;
  readonly chunk: number;
  /** Set where the next chunk is asked for rather than sent. */
  readonly asks: boolean;
  /** Bytes of the whole data block, over all chunks. */
  readonly size: number;
}

const HEADER: Layout = {
  bytes: 2,
  fields: [figure('size', 8, 0), mark('asks', 10), figure('chunk', 14, 11), mark('chunked', 15)],
};
/** Data bytes of a chunk at most; data objects are padded to four bytes. */
export const CHUNK_BYTES = 26;
const HEADER_BYTES = 2;

export interface ExtendedPart {
  readonly header: ExtendedHeader;
  readonly data: Uint8Array;
}

/** Head and data of an extended message from what stands behind its header; undefined where even the head is missing. */
export function readExtended(bytes: Uint8Array): ExtendedPart | undefined {
  if (bytes.length < HEADER_BYTES) return undefined;
  const { size, asks, chunk, chunked } = readFields(HEADER, bytes);
  const header: ExtendedHeader = {
    size: Number(size),
    asks: asks === true,
    chunk: Number(chunk),
    chunked: chunked === true,
  };
  const before = header.chunked ? header.chunk * CHUNK_BYTES : 0;
  const own = Math.max(0, Math.min(header.size - before, header.chunked ? CHUNK_BYTES : header.size));
  return { header, data: header.asks ? new Uint8Array() : bytes.slice(HEADER_BYTES, HEADER_BYTES + own) };
}

/** The data objects of one chunk, or of the whole where it is not chunked: head, data, padding to four bytes. */
export function writeExtended({ header, data }: ExtendedPart): number[] {
  const head = writeFields(HEADER, {
    size: header.size,
    asks: header.asks,
    chunk: header.chunk,
    chunked: header.chunked,
  });
  const bytes = new Uint8Array(4 * Math.ceil((HEADER_BYTES + data.length) / 4));
  bytes.set(head);
  bytes.set(data, HEADER_BYTES);
  const view = new DataView(bytes.buffer);
  return Array.from({ length: bytes.length / 4 }, (_, i) => view.getUint32(4 * i, true));
}

/** A data block as the chunks it is sent in. */
export function chunksOf(block: Uint8Array): ExtendedPart[] {
  const count = Math.max(1, Math.ceil(block.length / CHUNK_BYTES));
  return Array.from({ length: count }, (_, chunk) => ({
    header: { chunked: true, chunk, asks: false, size: block.length },
    data: block.slice(chunk * CHUNK_BYTES, (chunk + 1) * CHUNK_BYTES),
  }));
}

/** Chunks put together as they come in order; undefined until the last one is there, or where one is missing. */
export function joinChunks(parts: readonly ExtendedPart[]): Uint8Array | undefined {
  const size = parts[0]?.header.size ?? 0;
  const block = new Uint8Array(size);
  let filled = 0;
  for (const { header, data } of parts) {
    if (header.asks) continue;
    const from = header.chunked ? header.chunk * CHUNK_BYTES : 0;
    if (from !== filled || header.size !== size) return undefined;
    block.set(data, from);
    filled += data.length;
  }
  return filled === size && parts.length > 0 ? block : undefined;
}
