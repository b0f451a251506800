import { checksumByName, findChecksums } from '../checksum';
import { seededRandom } from '../math';
import { entropyBits, proposeMap } from '.';

const random = seededRandom(40);
const SIZE = 16 * 1024;

/** An image of which every part is known. */
function made(): Uint8Array {
  const bytes = new Uint8Array(SIZE).fill(0xff);
  for (let i = 0; i < 4096; i++)
    bytes[i] = i % 2 === 1 ? [0x20, 0x46, 0x68, 0x70, 0xb5][Math.floor(5 * random())] : 256 * random();
  bytes.copyWithin(4096, 0, 4096);
  const text = new TextEncoder().encode('port controller, settings of the second position; '.repeat(12)).slice(0, 512);
  bytes.set(text, 10240);
  const view = new DataView(bytes.buffer);
  for (let k = 0; k < 64; k++) view.setUint32(11264 + 4 * k, 0x08000000 + 64 * k + Math.floor(60 * random()), true);
  for (let i = 12288; i < 13312; i++) bytes[i] = 256 * random();
  bytes.fill(0, 14336, 14592);
  bytes[14400] = 3;
  return bytes;
}

test('each part is proposed for what it is, the second copy for a copy of the first', () => {
  const map = proposeMap(made());
  const at = (offset: number) => map.find((s) => s.offset <= offset && offset < s.offset + s.length)!;
  expect(at(100).kind).toBe('code');
  expect(at(5000)).toMatchObject({ kind: 'code', copyOf: at(5000).offset - 4096 });
  expect(at(9000).kind).toBe('erased');
  expect(at(10300).kind).toBe('text');
  expect(at(11300).kind).toBe('pointers');
  expect(at(12800).kind).toBe('dense');
  expect(at(14400).kind).toBe('sparse');
});

test('the stretches cover the image once, whatever is in it', () => {
  for (const bytes of [
    made(),
    new Uint8Array(1000).fill(0xff),
    Uint8Array.from({ length: 3000 }, () => 256 * random()),
  ]) {
    let end = 0;
    for (const stretch of proposeMap(bytes)) {
      expect(stretch.offset).toBe(end);
      end += stretch.length;
    }
    expect(end).toBe(bytes.length);
  }
});

test('checksums that were found stand in it with their range', () => {
  const bytes = made();
  const crc = checksumByName('CRC-32/ISO-HDLC')!;
  new DataView(bytes.buffer).setUint32(SIZE - 4, crc.of(bytes, 0, SIZE - 4), true);
  const { claims } = findChecksums([bytes], { algorithms: [crc] });
  const field = proposeMap(bytes, claims).find((s) => s.kind === 'checksum');
  expect(field).toMatchObject({ offset: SIZE - 4, length: 4, words: expect.stringMatching(/^CRC-32\/ISO-HDLC of/) });
});

test('entropy: none for one byte, one bit for two alike, eight for all alike', () => {
  expect(entropyBits(new Uint8Array(64).fill(7))).toBe(0);
  expect(entropyBits(Uint8Array.from({ length: 64 }, (_, i) => i & 1))).toBeCloseTo(1, 12);
  expect(entropyBits(Uint8Array.from({ length: 256 }, (_, i) => i))).toBeCloseTo(8, 12);
});
