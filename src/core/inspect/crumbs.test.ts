import { seededRandom } from '../math';
import { inspectBalls, type Inspection } from './inspect';
import { fullPattern, sitesOf } from '../site';
import { renderScene, type Scene } from './render';
import { HARD, drawScene } from './scenes';

const pattern = fullPattern(7, 6);
const QUIET = { ...HARD, defects: 0, tiltDeg: 3, hairs: 0, glares: 0, debris: 0, slope: 0.3, noise: 3, blurPx: 0.8 };
const SIZES = { ball: 0.58, pad: 0.46 };

function seen(more: (scene: Scene) => Partial<Scene>, seed = 2): Inspection {
  const random = seededRandom(seed);
  const scene = drawScene(pattern, SIZES, 40, random, QUIET);
  return inspectBalls(renderScene({ ...scene, ...more(scene) }, random), pattern, { pitchMm: 0.5, ballMm: 0.29 })!;
}

test('nothing lies between clean balls, under light that falls off', () => {
  for (const seed of [1, 2, 3, 4]) expect(seen(() => ({}), seed).solderDebris).toEqual([]);
});

test('bits are told where they lie, each once, down to a tenth of a pitch across', () => {
  const debris = [
    { x: -1.5, y: 0, radius: 0.07 },
    { x: 0.5, y: 1, radius: 0.12 },
    { x: 2.5, y: -2, radius: 0.09 },
  ];
  const found = seen(() => ({ debris })).solderDebris;
  expect(found).toHaveLength(3);
  for (const c of debris) expect(Math.min(...found.map((f) => Math.hypot(f.x - c.x, f.y - c.y)))).toBeLessThan(0.08);
});

test('a bridge is no bit, a hair is none, and neither is a ball that is missing', () => {
  const hair = {
    path: [
      { x: -3, y: -2.4 },
      { x: 0, y: 0.4 },
      { x: 3, y: 2.5 },
    ] as const,
    width: 0.08,
  };
  const { solderDebris, bridges, balls } = seen(({ balls }) => ({
    bridges: [{ a: 0, b: 1, width: 0.3 }],
    hairs: [hair],
    balls: balls.map((b, i) => (i === 20 ? null : b)),
  }));
  expect(solderDebris).toEqual([]);
  expect(bridges).toEqual([[0, 1]]);
  expect(balls.flatMap((b, i) => (b.verdict === 'missing' ? [i] : []))).toEqual([20]);
});

test('bridges down as well as across, and a chain of three', () => {
  const chain = [
    { a: 9, b: 10, width: 0.25 },
    { a: 10, b: 11, width: 0.25 },
    { a: 3, b: 10, width: 0.25 },
  ];
  const { bridges } = seen(() => ({ bridges: chain }));
  const told = bridges.map((pair) => [...pair].join(' ')).sort();
  expect(told).toEqual(chain.map(({ a, b }) => `${a} ${b}`).sort());
});

test('where a ball is missing beside solder no bridge is told: there is nothing to bridge to', () => {
  const { bridges } = seen(({ balls }) => ({ balls: balls.map((b, i) => (i === 8 ? null : b)) }));
  expect(bridges).toEqual([]);
});

test('a ball under glare is left to the eye rather than called missing', () => {
  const site = sitesOf(pattern)[24];
  const { balls } = seen(() => ({ glares: [{ x: site.x, y: site.y, radius: 0.9, level: 0.75 }] }));
  expect(balls[24].verdict).not.toBe('missing');
  expect(balls[24].unclear).toBe(true);
  expect(balls.filter((b) => b.verdict === 'missing')).toEqual([]);
});

test('limits are the bench’s: a tighter one rejects what the usual one lets pass', () => {
  const random = seededRandom(6);
  const scene = drawScene(pattern, SIZES, 40, random, QUIET);
  const balls = scene.balls.map((b, i) => (i === 5 ? { ...b!, diameter: 0.58 * 1.06 } : { ...b!, diameter: 0.58 }));
  const picture = renderScene({ ...scene, balls }, random);
  const verdict = (sizeShare: number) =>
    inspectBalls(picture, pattern, { pitchMm: 0.5, ballMm: 0.29 }, { sizeShare, besidePitches: 0.08 })!.balls[5]
      .verdict;
  expect([verdict(0.08), verdict(0.04)]).toEqual(['good', 'large']);
});
