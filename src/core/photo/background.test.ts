import { normalDraw, seededRandom } from '../math';
import { foregroundOf } from './background';
import type { Pixels } from './straighten';

const PX_PER_MM = 10;
const [WIDTH, HEIGHT] = [400, 260];
/** What laying flat leaves of a camera's noise: it takes the mean of four neighbours. */
const NOISE = 1.5;

/** A board of one colour under light that falls off to one corner, with whatever is laid on it. */
function picture(
  mask: readonly [number, number, number],
  fallOff: number,
  on: (x: number, y: number) => readonly number[] | undefined,
): Pixels {
  const random = seededRandom(5);
  const data = new Uint8ClampedArray(4 * WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const light = 1 - (fallOff * (x / WIDTH + y / HEIGHT)) / 2;
      const colour = on(x, y) ?? mask;
      data.set([...colour.map((c) => c * light + NOISE * normalDraw(random)), 255], 4 * (y * WIDTH + x));
    }
  return { width: WIDTH, height: HEIGHT, data };
}
const share = (mask: Uint8Array, where: (x: number, y: number) => boolean): number => {
  let [sum, n] = [0, 0];
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      if (where(x, y)) {
        sum += mask[y * WIDTH + x];
        n++;
      }
  return sum / n;
};
const inChip = (x: number, y: number): boolean => x >= 120 && x < 180 && y >= 80 && y < 140;
const inMetal = (x: number, y: number): boolean => x >= 300 && x < 320 && y >= 40 && y < 60;
const onTrace = (x: number, y: number): boolean => y >= 200 && y < 203 && x > 50 && x < 350;

describe.each([
  ['green', [28, 92, 56]],
  ['blue', [24, 58, 112]],
  ['red', [112, 30, 34]],
  ['white', [214, 216, 214]],
] as const)('on a %s board', (_name, mask) => {
  test.each([0, 0.3])(
    'under light that falls off by %p: chips and metal stand out, the bare board and its traces do not',
    (fallOff) => {
      const photo = picture(mask, fallOff, (x, y) => {
        if (inChip(x, y)) return [38, 38, 41];
        if (inMetal(x, y)) return mask[0] > 200 ? [120, 122, 124] : [200, 202, 204];
        return onTrace(x, y) ? mask.map((c) => Math.min(255, c * 1.14)) : undefined;
      });
      const { mask: found } = foregroundOf(photo, PX_PER_MM);
      expect(share(found, inChip)).toBeGreaterThan(0.97);
      expect(share(found, inMetal)).toBeGreaterThan(0.97);
      expect(share(found, onTrace)).toBeLessThan(0.03);
      expect(share(found, (x, y) => !inChip(x, y) && !inMetal(x, y) && !onTrace(x, y))).toBeLessThan(0.02);
    },
  );
});

test('what the photograph does not show is no foreground', () => {
  const photo = picture([28, 92, 56], 0, () => undefined);
  for (let i = 0; i < WIDTH * 40; i++) photo.data.set([0, 0, 0, 0], 4 * i);
  const { mask } = foregroundOf(photo, PX_PER_MM);
  expect(share(mask, (_x, y) => y < 40)).toBe(0);
});
