import { demoDump, demoFamily } from '../../../demo/files';
import { signsOf } from '.';

const [heron, marsh] = ['heron-pd', 'marsh-pd3'].map(demoFamily);
const GOOD = demoDump('heronlog-known-good.bin');
const kinds = (bytes: Uint8Array, position?: number): string[] =>
  signsOf(heron, [heron, marsh], bytes, position).map((s) => s.kind);
const words = (bytes: Uint8Array): string => signsOf(heron, [heron, marsh], bytes)[0]?.words ?? '';
const changed = (change: (bytes: Uint8Array) => void): Uint8Array => {
  const bytes = Uint8Array.from(GOOD);
  change(bytes);
  return bytes;
};

test('a sound dump of the right position shows nothing', () => {
  expect(kinds(GOOD, 1)).toEqual([]);
});

test('blank, all zero, and both with what they point at', () => {
  expect(kinds(new Uint8Array(GOOD.length).fill(0xff))).toEqual(['blank']);
  expect(kinds(new Uint8Array(GOOD.length))).toEqual(['zero']);
});

test('content that repeats: the held address bit is named', () => {
  const half = GOOD.length / 2;
  expect(kinds(changed((b) => b.copyWithin(half, 0, half)))).toContain('aliased');
  const held = GOOD.map((_, i) => GOOD[i & ~(1 << 12)]);
  expect(words(held)).toContain('address bit 12 is held');
});

test('cut off in the file, and read as FF from somewhere on', () => {
  expect(words(GOOD.slice(0, 5000))).toMatch(/^Cut off at 5,000 of/);
  expect(kinds(changed((b) => b.fill(0xff, 0x4000)))).toContain('truncated');
});

test('shifted late and early by a byte or more', () => {
  expect(words(changed((b) => b.copyWithin(1, 0)))).toContain('1 byte late');
  expect(words(changed((b) => b.copyWithin(0, 1)))).toContain('first byte is missing');
});

test.each([3, 17, 4000 * 8 + 5])('one wrong bit under a checksum is found: bit %p of the code', (bit) => {
  const { covers } = heron.regions.find((r) => r.meaning === 'checksum')!;
  const at = covers!.offset + 64 + (bit >>> 3);
  const sign = words(changed((b) => void (b[at] ^= 1 << (bit & 7))));
  expect(sign).toContain(`One bit is wrong: bit ${bit & 7} of`);
  expect(sign).toContain(at.toString(16).toUpperCase());
});

test('more than one wrong bit is not called one', () => {
  const { covers } = heron.regions.find((r) => r.meaning === 'checksum')!;
  expect(kinds(changed((b) => void b.fill(0x55, covers!.offset + 100, covers!.offset + 140)))).toEqual([]);
});

test('another family by its beginning, another position by its settings', () => {
  expect(kinds(demoDump('marshdesk-known-good.bin'))).toEqual(['otherFamily']);
  expect(kinds(GOOD, 0)).toEqual(['otherPosition']);
});
