import { Image, gaussianBlur } from 'image-js';
import { seededRandom } from '../math';
import { blurred } from './blur';
import { findBlobs, vertex } from './blobs';
import { greyAt, greyOf, shrunk, type GreyPicture } from './picture';

const random = seededRandom(6);
const noise = (width: number, height: number): GreyPicture => ({
  width,
  height,
  grey: Uint8Array.from({ length: width * height }, () => 256 * random()),
});

test('the blur equals image-js’s own away from the edges', () => {
  const [width, height, sigma] = [60, 44, 2.3];
  const { grey } = noise(width, height);
  const ours = blurred(new Float32Array(grey), width, height, sigma);
  const image = new Image(width, height, {
    data: Uint16Array.from(grey, (g) => g * 256),
    bitDepth: 16,
    colorModel: 'GREY',
  });
  const reach = Math.ceil(3 * sigma);
  const theirs = gaussianBlur(image, { sigma, size: 2 * reach + 1 }).getRawImage().data;
  for (let y = reach; y < height - reach; y++)
    for (let x = reach; x < width - reach; x++) expect(ours[y * width + x]).toBeCloseTo(theirs[y * width + x] / 256, 1);
});

test('an even field stays what it is under the blur', () => {
  const flat = blurred(new Float32Array(30 * 20).fill(77), 30, 20, 3);
  for (const value of flat) expect(value).toBeCloseTo(77, 3);
});

test('shrinking takes the mean of every square, and leaves what does not fill one', () => {
  const picture = noise(31, 23);
  const small = shrunk(picture, 4);
  expect([small.width, small.height]).toEqual([7, 5]);
  for (let y = 0; y < 5; y++)
    for (let x = 0; x < 7; x++) {
      let sum = 0;
      for (let dy = 0; dy < 4; dy++) for (let dx = 0; dx < 4; dx++) sum += picture.grey[(4 * y + dy) * 31 + 4 * x + dx];
      expect(Math.abs(small.grey[y * 7 + x] - sum / 16)).toBeLessThanOrEqual(0.51);
    }
  expect(shrunk(picture, 1)).toEqual(picture);
});

test('grey between pixels is theirs by distance; outside the edge goes on', () => {
  const picture: GreyPicture = { width: 2, height: 2, grey: Uint8Array.from([0, 100, 50, 150]) };
  expect(greyAt(picture, 0.5, 0)).toBeCloseTo(50, 0);
  expect(greyAt(picture, 0.5, 0.5)).toBeCloseTo(75, 0);
  expect(greyAt(picture, -9, 0)).toBeCloseTo(0, 0);
  expect(greyAt(picture, 9, 9)).toBeCloseTo(150, 0);
});

test('grey of colours by ITU-R BT.601: white, green brightest, blue darkest', () => {
  const rgba = Uint8Array.from([255, 255, 255, 255, 255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255]);
  const { grey } = greyOf(rgba, 4, 1);
  expect(grey[0]).toBe(255);
  [0.299, 0.587, 0.114].forEach((share, i) => expect(Math.abs(grey[i + 1] - 255 * share)).toBeLessThan(1));
});

test('the vertex of a parabola through three values', () => {
  for (const at of [-0.4, 0, 0.3]) {
    const value = (x: number): number => 5 - 2 * (x - at) ** 2;
    expect(vertex(value(-1), value(0), value(1))).toBeCloseTo(at, 9);
  }
  expect(vertex(1, 1, 1)).toBe(0);
});

test('bright spots of a ball’s size are found where they are, to a fraction of a pixel, the strongest first', () => {
  const [width, height, pitch] = [120, 90, 16];
  const spots = [
    { x: 30.3, y: 40.6, level: 200 },
    { x: 70.8, y: 30.2, level: 150 },
    { x: 90.1, y: 70.4, level: 100 },
  ];
  const grey = Uint8Array.from({ length: width * height }, (_, i) => {
    const [x, y] = [i % width, Math.floor(i / width)];
    const light = spots.map((s) => s.level * Math.exp(-((x - s.x) ** 2 + (y - s.y) ** 2) / (2 * 4.2 ** 2)));
    return 20 + light.reduce((a, b) => a + b, 0);
  });
  const found = findBlobs({ width, height, grey }, pitch, 3);
  found.forEach((blob, i) => {
    expect(Math.hypot(blob.x - spots[i].x, blob.y - spots[i].y)).toBeLessThan(0.2);
  });
  expect(findBlobs({ width, height, grey }, pitch, 1)).toHaveLength(1);
});
