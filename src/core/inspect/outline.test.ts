import { median, seededRandom } from '../math';
import { bodyGrey, gapLevel } from './bridge';
import { findOutline } from './circle';
import { edgeShift } from './edge-shift';
import { fullPattern, sitesOf, type Homography } from '../site';
import { compareFaces } from './shading-correlation';
import { renderScene, type Scene } from './render';

const PITCH_PX = 44;
const VIEW: Homography = [PITCH_PX, 0, 150, 0, PITCH_PX, 110, 0, 0];
const sites = sitesOf(fullPattern(5, 3));

/** A quiet picture of 5 × 3 balls; what a test is about is changed. */
const scene = (more: Partial<Scene> = {}): Scene => ({
  ...{ pattern: fullPattern(5, 3), toPicture: VIEW, width: 300, height: 220, padDiameter: 0.48 },
  balls: sites.map(() => ({ diameter: 0.6, offset: { x: 0, y: 0 }, shine: 0.8 })),
  ...{ bridges: [], hairs: [], debris: [], glares: [], slope: { x: 0, y: 0 } },
  ...{ substrate: 0.15, blurPx: 0.6, noise: 2 },
  ...more,
});
const seen = (more: Partial<Scene> = {}) => renderScene(scene(more), seededRandom(5));
const outlines = (more: Partial<Scene> = {}) => sites.map((s) => findOutline(seen(more), VIEW, s, 0.3));

test('a ball’s outline: middle and size to hundredths of a pitch, with a doubt that covers the error', () => {
  for (const [i, o] of outlines().entries()) {
    expect(o.radius).toBeCloseTo(0.3, 1);
    expect(Math.abs(o.radius - 0.3)).toBeLessThan(0.012);
    expect(Math.hypot(o.centre.x - sites[i].x, o.centre.y - sites[i].y)).toBeLessThan(0.01);
    expect(o.support).toBeGreaterThan(0.9);
    expect(o.radiusSd).toBeLessThan(0.01);
  }
});

test('a ball beside its site is found where it stands', () => {
  const balls = scene().balls.map((b, i) => (i === 7 ? { ...b!, offset: { x: 0.1, y: -0.05 } } : b));
  // As in use, the search begins at the spot that was seen, which is a little off.
  const o = findOutline(seen({ balls }), VIEW, { x: sites[7].x + 0.07, y: sites[7].y - 0.02 }, 0.3);
  expect(Math.hypot(o.centre.x - sites[7].x - 0.1, o.centre.y - sites[7].y + 0.05)).toBeLessThan(0.01);
});

test('a hair across a ball leaves its size alone', () => {
  const hairs = [
    {
      path: [
        { x: -2.5, y: -1.2 },
        { x: 0, y: 0.1 },
        { x: 2.5, y: 1.1 },
      ] as const,
      width: 0.08,
    },
  ];
  const clean = findOutline(seen(), VIEW, sites[7], 0.3);
  const crossed = findOutline(seen({ hairs }), VIEW, sites[7], 0.3);
  expect(Math.abs(crossed.radius - clean.radius)).toBeLessThan(0.012);
});

test.each([0.6, 1, 1.4])('what a blur of %p px takes from the edge is given back, for the whole picture', (blurPx) => {
  const found = outlines({ blurPx });
  const shift = edgeShift(seen({ blurPx }), VIEW, found);
  const raw = median(found.map((o) => o.radius)) - 0.3;
  expect(raw).toBeLessThan(0);
  expect(Math.abs(raw + shift)).toBeLessThan(Math.max(0.004, 0.5 * Math.abs(raw)));
  expect(edgeShift(seen(), VIEW, [])).toBe(0);
});

test('a pad has none of a ball’s shading; a dull ball has it, and is told by its brightness', () => {
  const balls = scene().balls.map((b, i) => (i === 4 ? null : i === 8 ? { ...b!, shine: 0.3 } : b));
  const picture = seen({ balls });
  const found = sites.map((s) => findOutline(picture, VIEW, s, 0.3));
  const faces = compareFaces(picture, VIEW, found, (o) => o.support > 0.8);
  expect(faces[4].shadingCorrelation).toBeLessThan(0.2);
  faces.forEach(({ shadingCorrelation }, i) => i !== 4 && i !== 8 && expect(shadingCorrelation).toBeGreaterThan(0.85));
  expect(faces[8].shadingCorrelation).toBeGreaterThan(0.32);
  expect(faces[8].brightness).toBeLessThan(0.95);
});

test('solder between two balls fills their gap; glare over both does not', () => {
  const pair = (more: Partial<Scene>) => {
    const picture = seen(more);
    const [a, b] = [6, 7].map((i) => findOutline(picture, VIEW, sites[i], 0.3));
    return gapLevel(picture, VIEW, [a, b]);
  };
  expect(pair({})).toBeLessThan(0.2);
  expect(pair({ bridges: [{ a: 6, b: 7, width: 0.25 }] })).toBeGreaterThan(0.9);
  expect(pair({ glares: [{ x: -0.5, y: 0, radius: 1, level: 0.3 }] })).toBeLessThan(0.3);
  const picture = seen();
  const o = findOutline(picture, VIEW, sites[7], 0.3);
  expect(bodyGrey(picture, VIEW, o)).toBeGreaterThan(80);
});

test('the same scene and seed give the same picture; another seed other noise', () => {
  expect(seen().grey).toEqual(seen().grey);
  expect(renderScene(scene(), seededRandom(6)).grey).not.toEqual(seen().grey);
});
