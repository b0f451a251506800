import { seededRandom } from '../math';
import { loadImage, saveImage } from '.';

const random = seededRandom(404);
const upTo = (n: number): number => Math.floor(n * random());
const bytes = Uint8Array.from({ length: 600 }, () => upTo(256));

/** A text with one character exchanged, left out or put in. */
function spoiled(text: string): string {
  const at = upTo(text.length);
  const letter = ':S0123456789ABCDEFG \n'[upTo(21)];
  return [
    text.slice(0, at) + letter + text.slice(at + 1),
    text.slice(0, at) + text.slice(at + 1),
    text.slice(0, at) + letter + text.slice(at),
  ][upTo(3)];
}

test.each(['intel-hex', 's-record'] as const)(
  'a %s file with one character spoiled is read as the same bytes or refused with a sentence, never misread',
  (format) => {
    const text = saveImage([{ address: 0x1f0, bytes }], format);
    let refused = 0;
    for (let k = 0; k < 2000; k++) {
      const loaded = loadImage(new TextEncoder().encode(spoiled(text)));
      if (!loaded.ok) {
        refused += 1;
        expect(loaded.problems[0].message).toMatch(/^(Expected|Not)/);
        continue;
      }
      // Read as raw where the first line no longer tells what it is; else nothing may have changed but spaces.
      if (loaded.value.format === 'raw') continue;
      expect(loaded.value.chunks).toEqual([{ address: 0x1f0, bytes }]);
    }
    expect(refused).toBeGreaterThan(1500);
  },
);

test('records in any order come together in ascending order, neighbours joined', () => {
  const text = saveImage([{ address: 0, bytes: bytes.slice(0, 96) }], 'intel-hex');
  const lines = text.trimEnd().split('\n');
  const shuffled = [...lines.slice(0, -1).reverse(), lines[lines.length - 1]].join('\n');
  const loaded = loadImage(new TextEncoder().encode(shuffled));
  expect(loaded).toMatchObject({ ok: true, value: { chunks: [{ address: 0, bytes: bytes.slice(0, 96) }] } });
});
