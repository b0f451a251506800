import { seededRandom } from '../math';
import { hiddenInJpeg, maskPixels } from '.';

const random = seededRandom(3);

test('what is covered is black and opaque, all else as it was; masks over the edge are cut', () => {
  const [width, height] = [20, 12];
  const before = Uint8ClampedArray.from({ length: 4 * width * height }, () => 256 * random());
  const after = before.slice();
  const masks = [
    { x: 3, y: 2, width: 5, height: 4 },
    { x: 17, y: 9, width: 50, height: 50 },
    { x: -4, y: -4, width: 5, height: 5 },
  ];
  maskPixels(after, width, masks);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const isCovered = masks.some((m) => x >= m.x && x < m.x + m.width && y >= m.y && y < m.y + m.height);
      const pixel = [...after.slice(4 * (y * width + x), 4 * (y * width + x) + 4)];
      expect(pixel).toEqual(
        isCovered ? [0, 0, 0, 255] : [...before.slice(4 * (y * width + x), 4 * (y * width + x) + 4)],
      );
    }
  }
});

test('two pictures that differ only below the mask are the same afterwards: nothing of it can be got back', () => {
  const one = Uint8ClampedArray.from({ length: 4 * 64 }, () => 256 * random());
  const other = one.slice();
  for (let i = 0; i < 4 * 8; i++) other[i] = 256 * random();
  for (const picture of [one, other]) maskPixels(picture, 8, [{ x: 0, y: 0, width: 8, height: 1 }]);
  expect(other).toEqual(one);
});

describe('a JPEG (ITU-T T.81, annex B)', () => {
  const segment = (marker: number, ...data: number[]): number[] => [0xff, marker, 0, data.length + 2, ...data];
  const jpeg = (...before: number[]): Uint8Array =>
    Uint8Array.of(0xff, 0xd8, ...segment(0xe0, 74, 70), ...before, ...segment(0xda, 1, 2), 9, 0xff, 0, 9, 0xff, 0xd9);

  test('with nothing but its picture and a colour profile hides nothing', () => {
    expect(hiddenInJpeg(jpeg())).toBeUndefined();
    expect(hiddenInJpeg(jpeg(...segment(0xe2, 1, 2, 3), ...segment(0xdb, 5)))).toBeUndefined();
  });

  test.each([
    ['camera data', jpeg(...segment(0xe1, 69, 120, 105, 102)), /EXIF/],
    ['a comment', jpeg(...segment(0xfe, 72, 105)), /camera/],
    ['bytes behind its end', Uint8Array.of(...jpeg(), 1, 2, 3), /behind its end/],
    ['no end', jpeg().slice(0, -2), /behind its end/],
    ['no picture at all', Uint8Array.of(0xff, 0xd8, 1, 2, 3, 4), /no picture/],
  ])('with %s says so', (_, bytes, words) => {
    expect(hiddenInJpeg(bytes)).toMatch(words);
  });
});
