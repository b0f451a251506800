import type { Checksum } from './catalogue';
import { CrcKeys } from './crc-keys';
import { DoubleSumKeys } from './double-sum-keys';
import type { RangeKeys } from './range-keys';
import { SumKeys, XorKeys } from './sum-keys';

/** @param starts, ends offsets, ascending; prefix sums are taken at them. */
export function rangeKeys(checksum: Checksum, bytes: Uint8Array, starts: Int32Array, ends: Int32Array): RangeKeys {
  const place = { bytes, starts, ends, fieldBytes: checksum.bytes };
  switch (checksum.kind) {
    case 'crc':
      return new CrcKeys(checksum.crc, place);
    case 'sum':
      return new SumKeys(checksum.sum, place);
    case 'double':
      return new DoubleSumKeys(checksum.double, place);
    case 'xor':
      return new XorKeys(place);
  }
}
