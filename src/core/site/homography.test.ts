import { seededRandom } from '../math';
import { fitHomography, inverse, mapPoint, scaled, type Homography, type Point } from './homography';

const random = seededRandom(3);
const anywhere = (): Point => ({ x: 20 * random() - 10, y: 20 * random() - 10 });
const LEANING: Homography = [41, -5, 320, 4, 39, 240, 0.004, -0.002];

const close = (a: Point, b: Point, digits = 6): void => {
  expect(a.x).toBeCloseTo(b.x, digits);
  expect(a.y).toBeCloseTo(b.y, digits);
};

test('a map and its inverse lead back to every place', () => {
  const back = inverse(LEANING);
  for (let k = 0; k < 50; k++) {
    const at = anywhere();
    close(mapPoint(back, mapPoint(LEANING, at)), at);
  }
});

test('perspective is found again from twelve pairs', () => {
  const from = Array.from({ length: 12 }, anywhere);
  const found = fitHomography(
    from,
    from.map((p) => mapPoint(LEANING, p)),
  )!;
  for (let k = 0; k < 20; k++) {
    const at = anywhere();
    // To a hundredth of a pixel: the whisper of damping is seen from there on.
    close(mapPoint(found, at), mapPoint(LEANING, at), 1);
  }
});

test('few pairs settle no perspective: an affine map from four, turned and scaled from two', () => {
  const affine: Homography = [30, 4, 100, -3, 31, 90, 0, 0];
  const four = [anywhere(), anywhere(), anywhere(), anywhere()];
  const found = fitHomography(
    four,
    four.map((p) => mapPoint(affine, p)),
  )!;
  expect(found.slice(6)).toEqual([0, 0]);
  found.forEach((value, i) => expect(value).toBeCloseTo(affine[i], 4));
  const turned: Homography = [20, -6, 50, 6, 20, 60, 0, 0];
  const two = [anywhere(), anywhere()];
  fitHomography(
    two,
    two.map((p) => mapPoint(turned, p)),
  )!.forEach((value, i) => expect(value).toBeCloseTo(turned[i], 4));
  expect(fitHomography(two.slice(1), two.slice(1))).toBeUndefined();
});

test('noise on the pairs is averaged out: forty pairs err less than one', () => {
  const from = Array.from({ length: 40 }, anywhere);
  const to = from.map((p) => {
    const at = mapPoint(LEANING, p);
    return { x: at.x + random() - 0.5, y: at.y + random() - 0.5 };
  });
  const found = fitHomography(from, to)!;
  const middle = mapPoint(found, { x: 0, y: 0 });
  expect(Math.hypot(middle.x - 320, middle.y - 240)).toBeLessThan(0.4);
});

test('a picture enlarged: the middle of the first pixel moves by half of what a pixel grows', () => {
  const larger = scaled(LEANING, 3);
  const at = anywhere();
  const small = mapPoint(LEANING, at);
  // Pixel 0 of the small picture covers pixels 0 to 2 of the large one: its middle is at 1.
  close(mapPoint(larger, at), { x: 3 * small.x + 1, y: 3 * small.y + 1 });
  close(mapPoint(scaled(larger, 1 / 3), at), small);
});
