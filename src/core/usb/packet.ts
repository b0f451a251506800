import { crc32 } from '../image';
import { decodeHeader, encodeHeader, type MessageHeader } from './objects';
import type { OrderedSet } from './symbols';

/** A message as it went over the line, with the time of its first edge in seconds. */
export interface PdPacket {
  readonly atS: number;
  readonly set: OrderedSet;
  readonly header?: MessageHeader;
  readonly objects: readonly number[];
  /** What stands behind the header of an extended message, byte by byte. */
  readonly data?: Uint8Array;
  /** False when the check sum fails or the end is missing. */
  readonly intact: boolean;
  /** What is wrong with a packet that is not intact. */
  readonly trouble?: string;
}

/** Header, objects and check sum as bytes, lowest byte first. */
export function packetBytes(header: MessageHeader, objects: readonly number[]): Uint8Array {
  const bytes = new Uint8Array(2 + 4 * objects.length + 4);
  const view = new DataView(bytes.buffer);
  view.setUint16(0, encodeHeader({ ...header, count: objects.length }), true);
  objects.forEach((word, i) => view.setUint32(2 + 4 * i, word >>> 0, true));
  view.setUint32(bytes.length - 4, crc32(bytes.subarray(0, bytes.length - 4)), true);
  return bytes;
}

/** Reads the bytes of a packet; the check sum covers header and objects (CRC-32/ISO-HDLC). */
export function readPacket(atS: number, set: OrderedSet, bytes: Uint8Array, ended: boolean): PdPacket {
  if (bytes.length < 6) return { atS, set, objects: [], intact: false, trouble: `only ${bytes.length} bytes` };
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const header = decodeHeader(view.getUint16(0, true));
  const count = Math.floor((bytes.length - 6) / 4);
  const objects = Array.from({ length: count }, (_, i) => view.getUint32(2 + 4 * i, true));
  const stored = view.getUint32(bytes.length - 4, true);
  const holds = crc32(bytes.subarray(0, bytes.length - 4)) === stored;
  const data = header.extended ? { data: bytes.slice(2, -4) } : {};
  if (!ended) return { atS, set, header, objects, ...data, intact: false, trouble: 'its end is missing' };
  if (!holds) return { atS, set, header, objects, ...data, intact: false, trouble: 'its check sum fails' };
  return { atS, set, header, objects, ...data, intact: true };
}

export const isMessage = (p: PdPacket, type: number, data: boolean): boolean =>
  p.intact && p.header !== undefined && !p.header.extended && p.header.type === type && p.header.count > 0 === data;
