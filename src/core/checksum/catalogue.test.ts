import crc16 from 'crc/calculators/crc16';
import crc16ccitt from 'crc/calculators/crc16ccitt';
import crc16kermit from 'crc/calculators/crc16kermit';
import crc16modbus from 'crc/calculators/crc16modbus';
import crc16xmodem from 'crc/calculators/crc16xmodem';
import crc32 from 'crc/calculators/crc32';
import crc8 from 'crc/calculators/crc8';
import { seededRandom } from '../math';
import { CHECKSUMS, checksumByName, readField, writeField } from '.';

const text = (s: string): Uint8Array => new TextEncoder().encode(s);
const of = (name: string, bytes: Uint8Array): number => checksumByName(name)!.of(bytes);
const random = seededRandom(7);
const some = (n: number): Uint8Array => Uint8Array.from({ length: n }, () => 256 * random());

// Check values for "123456789": catalogue of parametrised CRC algorithms; Adler-32: the same text by RFC 1950.
test.each([
  ['CRC-8/SMBUS', 0xf4],
  ['CRC-16/ARC', 0xbb3d],
  ['CRC-16/IBM-3740', 0x29b1],
  ['CRC-16/XMODEM', 0x31c3],
  ['CRC-16/KERMIT', 0x2189],
  ['CRC-16/MODBUS', 0x4b37],
  ['CRC-32/ISO-HDLC', 0xcbf43926],
  ['CRC-32/BZIP2', 0xfc891918],
  ['CRC-32/MPEG-2', 0x0376e6e7],
  ['CRC-32/ISCSI', 0xe3069283],
  ['Adler-32', 0x091e01de],
])('%s of 123456789 is the catalogue’s check value', (name, check) => {
  expect(of(name, text('123456789'))).toBe(check);
});

// Worked examples of Fletcher's sums that are commonly published, from memory.
test.each([
  ['Fletcher-16', 'abcde', 0xc8f0],
  ['Fletcher-16', 'abcdef', 0x2057],
  ['Fletcher-32', 'abcde', 0xf04fc729],
  ['Fletcher-32', 'abcdefgh', 0xebe19591],
])('%s of %s', (name, of_, value) => {
  expect(of(name, text(of_))).toBe(value);
});

// An independent implementation: the npm package crc.
test.each([
  ['CRC-8/SMBUS', crc8],
  ['CRC-16/ARC', crc16],
  ['CRC-16/IBM-3740', crc16ccitt],
  ['CRC-16/XMODEM', crc16xmodem],
  ['CRC-16/KERMIT', crc16kermit],
  ['CRC-16/MODBUS', crc16modbus],
  ['CRC-32/ISO-HDLC', crc32],
] as const)('%s equals an independent package on random bytes', (name, theirs) => {
  for (let k = 0; k < 40; k++) {
    const bytes = some(Math.floor(300 * random()));
    expect(of(name, bytes)).toBe(theirs(bytes) >>> 0);
  }
});

test('the CRCs that the package lacks equal a division bit by bit', () => {
  const mirror = (v: bigint, bits: number): bigint =>
    BigInt(`0b${v.toString(2).padStart(bits, '0').split('').reverse().join('')}`);
  const byBits = (bytes: Uint8Array, poly: bigint, reflected: boolean, xorOut: bigint): number => {
    let r = 0xffffffffn;
    for (const byte of bytes) {
      r ^= (reflected ? mirror(BigInt(byte), 8) : BigInt(byte)) << 24n;
      for (let k = 0; k < 8; k++) r = r & 0x80000000n ? ((r << 1n) ^ poly) & 0xffffffffn : (r << 1n) & 0xffffffffn;
    }
    return Number((reflected ? mirror(r, 32) : r) ^ xorOut);
  };
  for (let k = 0; k < 20; k++) {
    const bytes = some(Math.floor(100 * random()));
    expect(of('CRC-32/BZIP2', bytes)).toBe(byBits(bytes, 0x04c11db7n, false, 0xffffffffn));
    expect(of('CRC-32/MPEG-2', bytes)).toBe(byBits(bytes, 0x04c11db7n, false, 0n));
    expect(of('CRC-32/ISCSI', bytes)).toBe(byBits(bytes, 0x1edc6f41n, true, 0xffffffffn));
  }
});

test('a sum to zero brings the sum to zero; a range is summed like its copy', () => {
  const bytes = some(400);
  for (const [name, plain] of [
    ['sum of bytes to zero, 8 bits', 'sum of bytes, 8 bits'],
    ['sum of words to zero, 16 bits', 'sum of words, 16 bits'],
    ['sum of words to zero, 32 bits', 'sum of words, 32 bits'],
  ]) {
    const { bytes: width } = checksumByName(name)!;
    expect((of(name, bytes) + of(plain, bytes)) % 256 ** width).toBe(0);
  }
  for (const c of CHECKSUMS) expect(c.of(bytes, 64, 192)).toBe(c.of(bytes.slice(64, 192)));
});

test('a field is read as it was written, in both byte orders', () => {
  const bytes = new Uint8Array(8);
  for (const [width, big, value] of [
    [4, false, 0xcbf43926],
    [4, true, 0x80000001],
    [2, true, 0x31c3],
    [1, false, 0xf4],
  ] as const) {
    writeField(bytes, 3, width, big, value);
    expect(readField(bytes, 3, width, big)).toBe(value);
  }
  writeField(bytes, 0, 2, true, 0x1234);
  expect([...bytes.slice(0, 2)]).toEqual([0x12, 0x34]);
});
