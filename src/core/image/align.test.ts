import { seededRandom } from '../math';
import { alignImages, compareImages, parseImageFamily, type AlignedStretch } from '.';

const random = seededRandom(88);
const noise = (n: number): Uint8Array => Uint8Array.from({ length: n }, () => 256 * random());
const joined = (...parts: Uint8Array[]): Uint8Array => Uint8Array.from(parts.flatMap((p) => [...p]));

/** What has to hold of any alignment: it covers the first image once, and what it calls equal is. */
function checked(a: Uint8Array, b: Uint8Array): AlignedStretch[] {
  const aligned = alignImages(a, b);
  let at = 0;
  for (const { offset, length, shift, equal } of aligned) {
    expect([offset, length > 0]).toEqual([at, true]);
    at += length;
    if (shift !== undefined) expect(offset + length + shift).toBeLessThanOrEqual(b.length);
    if (equal) expect(a.slice(offset, at)).toEqual(b.slice(offset + shift!, at + shift!));
  }
  expect(at).toBe(a.length);
  return aligned;
}

const equalBytes = (aligned: readonly AlignedStretch[]): number =>
  aligned.reduce((sum, s) => sum + (s.equal ? s.length : 0), 0);

test('the same image is one equal stretch', () => {
  const a = noise(1001);
  expect(checked(a, a)).toEqual([{ offset: 0, length: 1001, shift: 0, equal: true }]);
});

test('bytes that were put in move the rest, and are told as extra', () => {
  const [head, tail] = [noise(5000), noise(7000)];
  const aligned = checked(joined(head, tail), joined(head, noise(24), tail));
  expect(aligned.at(-1)).toMatchObject({ length: expect.any(Number), shift: 24, equal: true });
  expect(aligned.find((s) => s.extraBefore)?.extraBefore).toBe(24);
  expect(equalBytes(aligned)).toBe(12_000);
});

test('bytes that were taken out have no counterpart', () => {
  const [head, cut, tail] = [noise(3000), noise(40), noise(3000)];
  const aligned = checked(joined(head, cut, tail), joined(head, tail));
  const absent = aligned.filter((s) => s.shift === undefined);
  expect(absent.reduce((sum, s) => sum + s.length, 0)).toBe(40);
  expect(equalBytes(aligned)).toBe(6000);
});

test('two blocks that changed places are both found', () => {
  const [one, two, between] = [noise(2048), noise(2048), noise(64)];
  const aligned = checked(joined(one, between, two), joined(two, between, one));
  expect(equalBytes(aligned)).toBeGreaterThanOrEqual(2048 + 64);
});

test('single changed bytes stay in place', () => {
  const a = noise(4000);
  const b = Uint8Array.from(a);
  for (const at of [30, 1777, 3999]) b[at] ^= 0x10;
  const aligned = checked(a, b);
  expect(aligned.filter((s) => !s.equal).map((s) => [s.offset, s.shift])).toEqual([
    [30, 0],
    [1777, 0],
    [3999, 0],
  ]);
});

test('whatever is cut, put in and changed: the alignment holds what it promises', () => {
  for (let k = 0; k < 60; k++) {
    const a = noise(200 + Math.floor(3000 * random()));
    let b = Uint8Array.from(a);
    for (let change = 0; change < 4; change++) {
      const at = Math.floor(b.length * random());
      const n = Math.floor(80 * random());
      if (random() < 0.4) b = joined(b.slice(0, at), noise(n), b.slice(at)) as Uint8Array<ArrayBuffer>;
      else if (random() < 0.6) b = joined(b.slice(0, at), b.slice(at + n)) as Uint8Array<ArrayBuffer>;
      else b[at] ^= 0x55;
    }
    checked(a, b);
  }
  checked(noise(0), noise(100));
  checked(noise(100), noise(0));
  checked(noise(500).subarray(3), noise(400).subarray(1));
});

test('a region whose content only moved says so, and does not count as differing', () => {
  const family = parseImageFamily({
    ...{ format: 'unisolda-image-family/1', id: 'moved', name: 'Moved', sizeBytes: 4096, magicHex: '4d' },
    regions: [
      { name: 'code', offset: 0, length: 3072, meaning: 'code' },
      { name: 'settings', offset: 3072, length: 1024, meaning: 'settings' },
    ],
  });
  if (!family.ok) throw new Error();
  const [code, settings] = [noise(3000), noise(1024)];
  const a = joined(code, new Uint8Array(72).fill(0xff), settings);
  const b = joined(noise(16), code, new Uint8Array(56).fill(0xff), settings);
  const [codeRow, settingsRow] = compareImages(family.value, a, b);
  expect(codeRow.words).toMatch(/^3,000 bytes stand 16 later/);
  expect(codeRow.differingBytes).toBeLessThanOrEqual(16);
  expect(settingsRow.words).toBe('the same');
});
