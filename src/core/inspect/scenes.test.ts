import { seededRandom } from '../math';
import { findPattern, pitchOf, usefulSidePx } from './find';
import { fullPattern, mapPoint, patternWithout, sitesOf } from '../site';
import { enlarged, inspectBalls } from './inspect';
import { shrunk } from './picture';
import { renderScene } from './render';
import { HARD, drawScene, type Trouble } from './scenes';
import { NO_TALLY, drawCase, scored } from './detection-score';

const QUIET: Trouble = {
  ...HARD,
  defects: 0,
  tiltDeg: 0,
  hairs: 0,
  glares: 0,
  debris: 0,
  slope: 0,
  noise: 2,
  blurPx: 0.6,
};
const SIZES = { ball: 0.6, pad: 0.48 };

test('a level camera puts sites a pitch apart; a leaning one makes the far side shorter', () => {
  const pattern = fullPattern(9, 9);
  const level = drawScene(pattern, SIZES, 40, seededRandom(1), QUIET);
  const [a, b] = [mapPoint(level.toPicture, { x: 0, y: 0 }), mapPoint(level.toPicture, { x: 1, y: 0 })];
  expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeCloseTo(40, 6);
  expect(pitchOf(level.toPicture)).toBeCloseTo(40, 6);
  for (let seed = 2; seed < 8; seed++) {
    const { toPicture } = drawScene(pattern, SIZES, 40, seededRandom(seed), { ...QUIET, tiltDeg: 8 });
    const length = (x: number, y: number): number => {
      const [p, q] = [mapPoint(toPicture, { x, y }), mapPoint(toPicture, { x: x + 0.01, y })];
      return Math.hypot(q.x - p.x, q.y - p.y) / 0.4;
    };
    for (const [x, y] of [
      [-4, -4],
      [4, -4],
      [-4, 4],
      [4, 4],
    ]) {
      expect(length(x, y)).toBeGreaterThan(0.93);
      expect(length(x, y)).toBeLessThan(1.07);
    }
  }
});

test('defects come in the share that is asked for, and none where none is', () => {
  const pattern = fullPattern(20, 20);
  const faults = (share: number): number => {
    const { balls, bridges } = drawScene(pattern, SIZES, 30, seededRandom(4), { ...QUIET, defects: share });
    const odd = balls.filter(
      (b) => !b || Math.abs(b.diameter / 0.6 - 1) > 0.08 || Math.hypot(b.offset.x, b.offset.y) > 0.08,
    );
    return odd.length + bridges.length;
  };
  expect(faults(0)).toBe(0);
  expect(faults(0.1) / 400).toBeGreaterThan(0.06);
  expect(faults(0.1) / 400).toBeLessThan(0.14);
});

test('the pattern is found whatever the scale of the picture', () => {
  const pattern = fullPattern(6, 4);
  for (const pitchPx of [18, 37, 80]) {
    const random = seededRandom(pitchPx);
    const picture = renderScene(drawScene(pattern, SIZES, pitchPx, random, QUIET), random);
    const laid = findPattern(picture, pattern)!;
    expect(laid.hit).toBe(1);
    expect(pitchOf(laid.toPicture) / pitchPx).toBeCloseTo(1, 1);
  }
});

test('what was seen in a shrunk picture is told for the whole one', () => {
  const pattern = fullPattern(5, 5);
  const random = seededRandom(2);
  const scene = drawScene(pattern, SIZES, 88, random, QUIET);
  const picture = renderScene(scene, random);
  const small = inspectBalls(shrunk(picture, 2), pattern, { pitchMm: 0.5, ballMm: 0.3 })!;
  const whole = enlarged(small, 2);
  for (const site of sitesOf(pattern)) {
    const [is, was] = [mapPoint(whole.toPicture, site), mapPoint(scene.toPicture, site)];
    expect(Math.hypot(is.x - was.x, is.y - was.y)).toBeLessThan(2);
  }
  expect(whole.mmPerPx).toBeCloseTo(0.5 / 88, 4);
  expect(usefulSidePx(pattern)).toBeLessThan(usefulSidePx(fullPattern(5, 9)));
});

test('the tally counts what is told right and wrong, and everything as missed where nothing was found', () => {
  const random = seededRandom(9);
  const pattern = fullPattern(3, 2);
  const scene = drawScene(pattern, SIZES, 40, random, QUIET);
  const faulty = {
    ...scene,
    balls: scene.balls.map((b, i) => (i === 1 ? null : b)),
    bridges: [{ a: 3, b: 4, width: 0.3 }],
  };
  const seen = inspectBalls(renderScene(faulty, random), pattern, { pitchMm: 0.5, ballMm: 0.3 })!;
  const right = scored(NO_TALLY, faulty, seen, 0.5);
  expect(right.missing).toEqual({ there: 1, found: 1, false: 0 });
  expect(right.bridged).toMatchObject({ there: 1, found: 1, false: 0 });
  expect(right.measured).toBe(5);
  const none = scored(NO_TALLY, faulty, undefined, 0.5);
  expect([none.missing.found, none.bridged.found, none.measured]).toEqual([0, 0, 0]);
  // Told of a scene without faults, the same look is wrong.
  const wrong = scored(NO_TALLY, scene, seen, 0.5);
  expect([wrong.missing.false, wrong.bridged.false]).toEqual([1, 1]);
});

test('cases are drawn between 4 and 400 sites, some without a middle', () => {
  const counts = Array.from({ length: 60 }, (_, seed) => {
    const { pattern, balls } = drawCase(seededRandom(seed)).scene;
    return { sites: balls.length, full: balls.length === pattern.columns * pattern.rows };
  });
  expect(Math.min(...counts.map((c) => c.sites))).toBeGreaterThanOrEqual(4);
  expect(Math.max(...counts.map((c) => c.sites))).toBeLessThanOrEqual(400);
  expect(counts.some((c) => !c.full)).toBe(true);
  expect(patternWithout(2, 2, () => true).filled).toEqual([false, false, false, false]);
});
