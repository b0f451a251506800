import { readField } from './catalogue';
import type { Field } from './range-keys';

/** Where a search looks in one image. */
export interface Place {
  readonly bytes: Uint8Array;
  readonly starts: Int32Array;
  readonly ends: Int32Array;
  readonly fieldBytes: number;
}

/** What a field holds; 0 where it does not fit in. */
export const valueOf = ({ bytes, fieldBytes }: Place, offset: number, bigEndian: boolean): number =>
  offset + fieldBytes <= bytes.length ? readField(bytes, offset, fieldBytes, bigEndian) : 0;

/** What the bytes of a field are beyond what they are taken for. */
export function beyondFill({ bytes, fieldBytes }: Place, { offset, fill }: Field): Uint8Array {
  const taken = fill === 'ff' ? 0xff : 0;
  return Uint8Array.from({ length: fieldBytes }, (_, k) => bytes[offset + k] ^ taken);
}
