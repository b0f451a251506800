import { seededRandom } from '../math';
import { checksumByName, findChecksums, writeField } from '.';
import { landmarksOf } from './landmarks';

const random = seededRandom(8);
const noise = (size: number): Uint8Array => Uint8Array.from({ length: size }, () => 1 + 254 * random());

test('an image without runs has its own ends for landmarks', () => {
  expect(landmarksOf([noise(4096)], 64, 12)).toEqual([
    { offset: 0, rank: 0 },
    { offset: 4096, rank: 0 },
  ]);
});

test('the edges of runs of FF and of 00 count, the longest first, at block edges; other bytes do not', () => {
  const bytes = noise(8192);
  bytes.fill(0xff, 1024, 3072);
  bytes.fill(0x00, 4096, 4416);
  bytes.fill(0x41, 6000, 7000);
  const marks = landmarksOf([bytes], 64, 12).filter((l) => l.rank > 0);
  expect(marks).toEqual([
    { offset: 1024, rank: 1 },
    { offset: 3072, rank: 1 },
    { offset: 4096, rank: 2 },
    { offset: 4416, rank: 2 },
  ]);
  expect(landmarksOf([bytes], 64, 4)).toHaveLength(4);
});

test('a short checksum from one edge of a gap to another is claimed from fewer units than one over any range', () => {
  const checksum = checksumByName('CRC-16/XMODEM')!;
  const unit = (): Uint8Array => {
    const bytes = noise(64 * 80);
    bytes.fill(0xff, 64 * 30, 64 * 50);
    writeField(bytes, 64 * 30, 2, true, checksum.of(bytes, 0, 64 * 30));
    return bytes;
  };
  const images = [unit(), unit(), unit()];
  const { claims } = findChecksums(images.slice(0, 3), { algorithms: [checksum] });
  expect(claims).toMatchObject([{ from: 0, to: 64 * 30, field: { offset: 64 * 30, bigEndian: true } }]);
});

test('an image with too many blocks is searched at a coarser alignment: its whole is found all the same', () => {
  const checksum = checksumByName('CRC-32/ISCSI')!;
  const bytes = noise(2 ** 21);
  writeField(bytes, bytes.length - 4, 4, false, checksum.of(bytes, 0, bytes.length - 4));
  const { claims } = findChecksums([bytes], { algorithms: [checksum] });
  expect(claims).toMatchObject([{ from: 0, to: bytes.length - 4 }]);
});

test('edges inside an erased stretch are not tried: what was planted beside it is found, the rest says nothing', () => {
  const checksum = checksumByName('CRC-32/BZIP2')!;
  const unit = (): Uint8Array => {
    const bytes = noise(64 * 300);
    bytes.fill(0xff, 64 * 20, 64 * 280);
    writeField(bytes, 64 * 290, 4, true, checksum.of(bytes, 64 * 280, 64 * 290));
    return bytes;
  };
  const whole = findChecksums([noise(64 * 300), noise(64 * 300)]);
  const { claims, tried } = findChecksums([unit(), unit()]);
  expect(claims).toMatchObject([{ algorithm: 'CRC-32/BZIP2', from: 64 * 280, to: 64 * 290 }]);
  expect(tried).toBeLessThan(whole.tried / 4);
});
