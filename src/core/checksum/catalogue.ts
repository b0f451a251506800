import { CrcRegister, type CrcParameters } from './crc';
import { doubleSumOf, sumOf, type DoubleSumParameters, type SumParameters } from './sums';

interface Named {
  readonly name: string;
  /** Bytes of its field. */
  readonly bytes: 1 | 2 | 4;
  readonly of: (bytes: Uint8Array, start?: number, end?: number) => number;
}

/** An algorithm with what a search over ranges needs to know of its arithmetic. */
export type Checksum = Named &
  (
    | { readonly kind: 'crc'; readonly crc: CrcRegister }
    | { readonly kind: 'sum'; readonly sum: SumParameters }
    | { readonly kind: 'double'; readonly double: DoubleSumParameters }
    | { readonly kind: 'xor' }
  );

function crc(name: string, parameters: CrcParameters): Checksum {
  const register = new CrcRegister(parameters);
  return {
    ...{ kind: 'crc', name, bytes: (parameters.width / 8) as 1 | 2 | 4, crc: register },
    of: (bytes, start, end) => register.of(bytes, start, end),
  };
}

const sum = (name: string, parameters: SumParameters): Checksum => ({
  ...{ kind: 'sum', name, bytes: (parameters.width / 8) as 1 | 2 | 4, sum: parameters },
  of: (bytes, start, end) => sumOf(parameters, bytes, start, end),
});

const double = (name: string, parameters: DoubleSumParameters): Checksum => ({
  ...{ kind: 'double', name, bytes: (parameters.half / 4) as 2 | 4, double: parameters },
  of: (bytes, start, end) => doubleSumOf(parameters, bytes, start, end),
});

const ONES = 0xffffffff;

/**
 * What is tried on an unknown field. CRC names and parameters: catalogue of parametrised CRC algorithms. Adler: RFC 1950.
 * Fletcher: RFC 1146. Plain sums are common practice, no source; their names are ours.
 */
export const CHECKSUMS: readonly Checksum[] = [
  crc('CRC-8/SMBUS', { width: 8, poly: 0x07, init: 0, reflected: false, xorOut: 0 }),
  crc('CRC-16/ARC', { width: 16, poly: 0x8005, init: 0, reflected: true, xorOut: 0 }),
  crc('CRC-16/IBM-3740', { width: 16, poly: 0x1021, init: 0xffff, reflected: false, xorOut: 0 }),
  crc('CRC-16/XMODEM', { width: 16, poly: 0x1021, init: 0, reflected: false, xorOut: 0 }),
  crc('CRC-16/KERMIT', { width: 16, poly: 0x1021, init: 0, reflected: true, xorOut: 0 }),
  crc('CRC-16/MODBUS', { width: 16, poly: 0x8005, init: 0xffff, reflected: true, xorOut: 0 }),
  crc('CRC-32/ISO-HDLC', { width: 32, poly: 0x04c11db7, init: ONES, reflected: true, xorOut: ONES }),
  crc('CRC-32/BZIP2', { width: 32, poly: 0x04c11db7, init: ONES, reflected: false, xorOut: ONES }),
  crc('CRC-32/MPEG-2', { width: 32, poly: 0x04c11db7, init: ONES, reflected: false, xorOut: 0 }),
  crc('CRC-32/ISCSI', { width: 32, poly: 0x1edc6f41, init: ONES, reflected: true, xorOut: ONES }),
  double('Adler-32', { modulus: 65521, first: 1, half: 16, wordBytes: 1 }),
  double('Fletcher-16', { modulus: 255, first: 0, half: 8, wordBytes: 1 }),
  double('Fletcher-32', { modulus: 65535, first: 0, half: 16, wordBytes: 2 }),
  sum('sum of bytes, 8 bits', { width: 8, wordBytes: 1, toZero: false }),
  sum('sum of bytes to zero, 8 bits', { width: 8, wordBytes: 1, toZero: true }),
  sum('sum of bytes, 16 bits', { width: 16, wordBytes: 1, toZero: false }),
  sum('sum of words, 16 bits', { width: 16, wordBytes: 2, toZero: false }),
  sum('sum of words to zero, 16 bits', { width: 16, wordBytes: 2, toZero: true }),
  sum('sum of bytes, 32 bits', { width: 32, wordBytes: 1, toZero: false }),
  sum('sum of words, 32 bits', { width: 32, wordBytes: 4, toZero: false }),
  sum('sum of words to zero, 32 bits', { width: 32, wordBytes: 4, toZero: true }),
  {
    ...{ kind: 'xor', name: 'exclusive or of bytes', bytes: 1 },
    of: (bytes, start = 0, end = bytes.length) => {
      let x = 0;
      for (let i = start; i < end; i++) x ^= bytes[i];
      return x;
    },
  },
];

export const checksumByName = (name: string): Checksum | undefined => CHECKSUMS.find((c) => c.name === name);

/** A field's value. */
export function readField(bytes: Uint8Array, offset: number, width: number, bigEndian: boolean): number {
  let value = 0;
  for (let k = 0; k < width; k++) value = value * 256 + bytes[offset + (bigEndian ? k : width - 1 - k)];
  return value;
}

export function writeField(bytes: Uint8Array, offset: number, width: number, bigEndian: boolean, value: number): void {
  for (let k = 0; k < width; k++) bytes[offset + (bigEndian ? width - 1 - k : k)] = Math.floor(value / 256 ** k) % 256;
}
