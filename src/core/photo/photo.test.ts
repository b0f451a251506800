import { inverse, mapPoint, type Homography, type Point } from '../site';
import { normalDraw, seededRandom, type Random } from '../math';
import { homographyOf, placeDoubtMm, pxPerMmFor, straightened, type Correspondence } from '.';

/** A camera that stands askew: 60 × 40 mm in a photograph of 2000 × 1500 px. */
const CAMERA: Homography = [29, 2.2, 140, -1.6, 30, 160, 0.0011, -0.0007];
const at = (x: number, y: number): Point => ({ x, y });
const CORNERS: readonly Point[] = [at(0, 0), at(60, 0), at(60, 40), at(0, 40)];
const seen = (mm: Point): Correspondence => ({ mm, px: mapPoint(CAMERA, mm) });
const off = ({ x, y }: Point, sdPx: number, random: Random): Point =>
  at(x + sdPx * normalDraw(random), y + sdPx * normalDraw(random));
const found = (points: readonly Correspondence[]): Homography => {
  const map = homographyOf(points);
  if (!map.ok) throw new Error(map.problems[0].message);
  return map.value;
};
const grid = Array.from({ length: 35 }, (_, i) => at(4 + (i % 7) * 8.5, 3 + Math.floor(i / 7) * 8.4));
const apart = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

describe('a homography', () => {
  test('of four exact corners is the camera', () => {
    const map = found(CORNERS.map(seen));
    map.forEach((value, i) => expect(value).toBeCloseTo(CAMERA[i], 8));
    for (const p of grid) expect(apart(mapPoint(inverse(map), mapPoint(CAMERA, p)), p)).toBeLessThan(1e-8);
  });

  test('of many points with one wrong click stays with the others', () => {
    const random = seededRandom(4);
    const points = grid.map((mm, i): Correspondence => {
      const { px } = seen(mm);
      return { mm, px: i === 9 ? at(px.x + 60, px.y - 45) : off(px, 1, random) };
    });
    const map = found(points);
    for (const p of grid) expect(apart(mapPoint(map, p), mapPoint(CAMERA, p))).toBeLessThan(2.5);
  });

  test.each([
    ['three points', CORNERS.slice(0, 3)],
    ['three in a line', [at(0, 0), at(30, 0), at(60, 0), at(0, 40)]],
    ['two on one another', [at(0, 0), at(0, 0), at(60, 40), at(0, 40)]],
  ])('is refused for %s', (_words, mm) => {
    const map = homographyOf(mm.map(seen));
    expect(!map.ok && map.problems[0].message).toMatch(/^Expected .*\.$/);
  });

  test('places are within 0.15 mm rms with clicks 2 px off, and the stated doubt is what is seen', () => {
    const random = seededRandom(17);
    const exact = CORNERS.map(seen);
    const squares = grid.map(() => 0);
    const rounds = 400;
    for (let k = 0; k < rounds; k++) {
      const back = inverse(found(exact.map(({ mm, px }) => ({ mm, px: off(px, 2, random) }))));
      grid.forEach((p, i) => {
        squares[i] += apart(mapPoint(back, mapPoint(CAMERA, p)), p) ** 2 / 2;
      });
    }
    expect(Math.sqrt(squares.reduce((s, q) => s + q, 0) / (rounds * grid.length))).toBeLessThan(0.15);
    grid.forEach((p, i) => {
      const ratio = placeDoubtMm(exact, p, 2) / Math.sqrt(squares[i] / rounds);
      // Four standard errors of a spread from 800 draws: 10 %.
      expect(Math.abs(ratio - 1)).toBeLessThan(0.1);
    });
  });
});

describe('a straightened photograph', () => {
  test('has on the board what the camera saw there, between neighbours', () => {
    const [width, height] = [2000, 1500];
    const back = inverse(CAMERA);
    const shade = ({ x, y }: Point): number => 128 + 60 * Math.sin(x / 3) * Math.cos(y / 4);
    const data = new Uint8ClampedArray(4 * width * height);
    for (let v = 0; v < height; v++)
      for (let u = 0; u < width; u++)
        data.set([shade(mapPoint(back, at(u + 0.5, v + 0.5))), 10, 20, 255], 4 * (v * width + u));
    expect(pxPerMmFor(60, 40)).toBe(40);
    const flat = straightened({ width, height, data }, CAMERA, 60, 40, 10);
    expect([flat.width, flat.height]).toEqual([600, 400]);
    for (const { x, y } of grid) {
      const pixel = 4 * (Math.floor(y * 10) * 600 + Math.floor(x * 10));
      const middle = at((Math.floor(x * 10) + 0.5) / 10, (Math.floor(y * 10) + 0.5) / 10);
      expect(Math.abs(flat.data[pixel] - shade(middle))).toBeLessThan(1.5);
      expect([...flat.data.subarray(pixel + 1, pixel + 4)]).toEqual([10, 20, 255]);
    }
  });

  test('is transparent where the photograph ends', () => {
    const photo = { width: 4, height: 4, data: new Uint8ClampedArray(64).fill(200) };
    const flat = straightened(photo, [1, 0, 0, 0, 1, 0, 0, 0], 8, 8, 1);
    expect(flat.data[3]).toBe(200);
    expect(flat.data[4 * (8 * 6 + 6) + 3]).toBe(0);
  });
});
