import { normalDraw, seededRandom } from '../math';
import { sizesOf, type MeasuredSize } from './sizing';

/** A grid of balls as an edge finder would measure them: true sizes, an edge that is off, focus that varies, noise. */
function drawn(
  seed: number,
  { edge = 1, focus = 0, noise = 0.005, count = 8 }: { edge?: number; focus?: number; noise?: number; count?: number },
): { measured: MeasuredSize[]; truth: number[] } {
  const random = seededRandom(seed);
  const places = Array.from({ length: count * count }, (_, i) => ({ x: i % count, y: Math.floor(i / count) }));
  const truth = places.map(() => 0.3 * (1 + 0.01 * normalDraw(random)));
  const middle = (count - 1) / 2;
  const measured = places.map((at, i) => {
    const out = ((at.x - middle) ** 2 + (at.y - middle) ** 2) / middle ** 2;
    const radius = truth[i] * edge * (1 + focus * (out - 2 / 3)) * (1 + noise * normalDraw(random));
    return { at: { x: at.x - middle, y: at.y - middle }, radius, profileRadius: radius, sd: 0.001, sound: true };
  });
  return { measured, truth };
}

test.each([0.93, 0.97, 1, 1.04])(
  'an edge that is off by %p for all balls is taken out, and its doubt stated',
  (edge) => {
    let inside = 0;
    const draws = 20;
    let bias = 0;
    for (let k = 0; k < draws; k++) {
      const { measured, truth } = drawn(k, { edge });
      const { radii, inDoubt } = sizesOf(measured, 0.3);
      expect(inDoubt).toBe(false);
      radii.forEach(({ radius, sd }, i) => {
        inside += Number(Math.abs(radius - truth[i]) <= 2 * sd);
        bias += (radius / truth[i] - 1) / (draws * truth.length);
      });
    }
    expect(Math.abs(bias)).toBeLessThan(0.01);
    expect(inside / (draws * 64)).toBeGreaterThan(0.92);
  },
);

test('focus that varies over the picture does not make corner balls small', () => {
  const { measured, truth } = drawn(3, { focus: -0.04 });
  const { radii, usual } = sizesOf(measured, 0.3);
  const share = (list: readonly number[]): number => Math.min(...list) / usual;
  expect(share(measured.map((m) => m.radius)) < 0.93).toBe(true);
  radii.forEach(({ radius }, i) => expect(Math.abs(radius / truth[i] - 1)).toBeLessThan(0.035));
});

test('a ball that is small among others stays small: it does not bend the surface', () => {
  const { measured } = drawn(5, {});
  const small = measured.map((m, i) =>
    i === 0 ? { ...m, radius: 0.84 * m.radius, profileRadius: 0.84 * m.radius } : m,
  );
  const { radii, usual } = sizesOf(small, 0.3);
  expect(radii[0].radius / usual).toBeLessThan(0.87);
});

test('an edge that jumped where the profile did not leaves half of the difference in the doubt', () => {
  const { measured } = drawn(5, {});
  const jumped = measured.map((m, i) => (i === 0 ? { ...m, radius: 0.84 * m.radius } : m));
  const { radii, usual } = sizesOf(jumped, 0.3);
  expect(radii[0].ownSd / usual).toBeGreaterThan(0.07);
  expect(radii[1].ownSd / usual).toBeLessThan(0.02);
});

test('where edges scatter and profiles do not, the profiles decide', () => {
  const { measured, truth } = drawn(11, { noise: 0.05 });
  const random = seededRandom(12);
  const steady = measured.map((m, i) => ({ ...m, profileRadius: truth[i] * (1 + 0.004 * normalDraw(random)) }));
  const rms = (list: readonly MeasuredSize[]): number =>
    Math.sqrt(sizesOf(list, 0.3).radii.reduce((s, r, i) => s + (r.radius / truth[i] - 1) ** 2, 0) / truth.length);
  expect(rms(steady)).toBeLessThan(0.4 * rms(measured));
});

test('balls of another size are not passed off as those that belong there: said, and left in the doubt', () => {
  const { measured } = drawn(7, { edge: 0.83 });
  const { radii, inDoubt } = sizesOf(measured, 0.3);
  expect(inDoubt).toBe(true);
  expect(radii[10].radius - 2 * radii[10].sd).toBeLessThan(0.83 * 0.3 * 1.02);
});

test('scatter beyond what balls differ by counts as noise of each', () => {
  const [quiet, noisy] = [0.003, 0.04].map((noise) => sizesOf(drawn(9, { noise }).measured, 0.3).radii[0]);
  expect(noisy.ownSd).toBeGreaterThan(5 * quiet.ownSd);
});
