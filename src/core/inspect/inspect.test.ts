import { seededRandom } from '../math';
import { NO_TALLY, drawCase, drawScene, inspectBalls, renderScene, scored, type Trouble } from '.';
import { fullPattern, mapPoint, patternWithout, sitesOf } from '../site';

const PITCH_MM = 0.5;
const QUIET: Trouble = { defects: 0, tiltDeg: 0, blurPx: 0.6, noise: 2, slope: 0, hairs: 0, glares: 0, debris: 0 };
const SIZES = { ball: 0.6, pad: 0.48 };
const SIZE_MM = { pitchMm: PITCH_MM, ballMm: SIZES.ball * PITCH_MM };

test('a sample of the benchmark’s pictures: missing and bridged sites found, next to none falsely, diameters within 2 % of pitch @long', () => {
  let tally = NO_TALLY;
  for (const seed of [1, 4, 11, 14, 20, 23]) {
    const random = seededRandom(seed);
    const { scene, sizes } = drawCase(random);
    const picture = renderScene(scene, random);
    const seen = inspectBalls(picture, scene.pattern, { pitchMm: PITCH_MM, ballMm: sizes.ball * PITCH_MM });
    tally = scored(tally, scene, seen, PITCH_MM);
  }
  expect(tally.missing.there).toBeGreaterThan(10);
  expect(tally.bridged.there).toBeGreaterThan(8);
  expect(tally.missing.found / tally.missing.there).toBeGreaterThanOrEqual(0.99);
  expect(tally.bridged.found / tally.bridged.there).toBeGreaterThanOrEqual(0.99);
  expect(tally.missing.false / tally.sites).toBeLessThanOrEqual(0.01);
  expect(tally.bridged.false / tally.bridged.gaps).toBeLessThanOrEqual(0.01);
  expect(Math.sqrt(tally.squared / tally.measured)).toBeLessThanOrEqual(0.02);
});

test('a scene of which every fault is known: each site is told for what it is', () => {
  const random = seededRandom(3);
  const pattern = fullPattern(6, 5);
  const scene = drawScene(pattern, SIZES, 40, random, QUIET);
  const balls = scene.balls.map((ball, i) => {
    if (i === 7) return null;
    if (i === 10) return { ...ball!, diameter: 0.52 };
    if (i === 15) return { ...ball!, diameter: 0.69 };
    if (i === 22) return { ...ball!, offset: { x: 0.11, y: 0 } };
    return ball;
  });
  const crumb = { x: 1, y: 0.5, radius: 0.1 };
  const picture = renderScene({ ...scene, balls, bridges: [{ a: 0, b: 1, width: 0.25 }], debris: [crumb] }, random);
  const seen = inspectBalls(picture, pattern, SIZE_MM)!;
  expect(seen.balls.map((b) => b.verdict)).toEqual(
    balls.map((_, i) => ({ 7: 'missing', 10: 'small', 15: 'large', 22: 'beside' })[i] ?? 'good'),
  );
  expect(seen.bridges).toEqual([[0, 1]]);
  expect(seen.solderDebris).toHaveLength(1);
  expect(seen.solderDebris[0].x).toBeCloseTo(crumb.x, 1);
  expect(seen.solderDebris[0].y).toBeCloseTo(crumb.y, 1);
  expect(seen.mmPerPx).toBeCloseTo(PITCH_MM / 40, 3);
});

test('the pattern lies where the camera put it, turned and leaned by eight degrees', () => {
  const random = seededRandom(9);
  const pattern = fullPattern(12, 9);
  const scene = drawScene(pattern, SIZES, 34, random, { ...QUIET, tiltDeg: 8, noise: 5, hairs: 2, glares: 2 });
  const seen = inspectBalls(renderScene(scene, random), pattern, SIZE_MM)!;
  for (const site of sitesOf(pattern)) {
    const [is, was] = [mapPoint(seen.toPicture, site), mapPoint(scene.toPicture, site)];
    expect(Math.hypot(is.x - was.x, is.y - was.y)).toBeLessThan(0.03 * 34);
  }
});

test('a pattern without some corners is found lying any of the four ways round', () => {
  const random = seededRandom(12);
  const pattern = patternWithout(7, 5, (c, r) => c < 2 && r < 2);
  const scene = drawScene(pattern, SIZES, 34, random, QUIET);
  const picture = renderScene(scene, random);
  // The picture on its head: the last pixel first.
  const turned = { ...picture, grey: Uint8Array.from(picture.grey).reverse() };
  const seen = inspectBalls(turned, pattern, SIZE_MM)!;
  expect(seen.balls.every((b) => b.verdict === 'good')).toBe(true);
  const corner = mapPoint(seen.toPicture, { x: 3, y: 2 });
  expect(corner.x).toBeLessThan(picture.width / 2);
  expect(corner.y).toBeLessThan(picture.height / 2);
});

test('no pattern, no verdict: noise alone and another array are refused', () => {
  const random = seededRandom(4);
  const grey = Uint8Array.from({ length: 400 * 300 }, () => 60 + 40 * random());
  expect(inspectBalls({ width: 400, height: 300, grey }, fullPattern(10, 8), SIZE_MM)).toBeUndefined();
});

test('balls that shine brightly on a light part: the ring of light on them is not taken for their edge', () => {
  const pattern = fullPattern(9, 6);
  const random = seededRandom(16);
  const drawn = drawScene(pattern, SIZES, 40, random, { ...QUIET, blurPx: 1.1 });
  const balls = drawn.balls.map((ball, i) => (i === 20 ? null : { ...ball!, shine: i % 3 === 0 ? 1 : 0.85 }));
  const seen = inspectBalls(renderScene({ ...drawn, balls, substrate: 0.21 }, random), pattern, SIZE_MM)!;
  expect(seen.balls.flatMap((b, i) => (b.verdict === 'missing' ? [i] : []))).toEqual([20]);
  for (const [i, ball] of seen.balls.entries())
    if (i !== 20) expect(Math.abs(ball.diameterMm / PITCH_MM - balls[i]!.diameter)).toBeLessThan(0.03);
});
