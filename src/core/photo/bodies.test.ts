import { LAND_PATTERNS } from '../sketch';
import type { Homography } from '../site';
import { seenBodies, straightened } from '.';
import { photographed, strewnScene, type BoardScene } from './tests/board-scene';

const PX_PER_MM = 16;
const choices = LAND_PATTERNS.filter((p) => p.seen);

/** A photograph of a scene laid flat: what it shows, and what there is to be found. */
function look(scene: BoardScene) {
  const [w, h] = scene.sizeMm;
  const scale = 1100 / w;
  const camera: Homography = [scale, 1.2, 40, -0.9, scale, 40, 0.0008, -0.0006];
  const photo = photographed(scene, camera, 1250, Math.round(h * scale + 110));
  return seenBodies(straightened(photo, camera, w, h, PX_PER_MM), PX_PER_MM, choices);
}

test('chips and two-pad parts of a strewn board are seen with their packages, and nothing else is @long', () => {
  let [found, right, all, wrong] = [0, 0, 0, 0];
  for (const seed of [101]) {
    const scene = strewnScene(seed);
    const seen = look(scene);
    const used = new Set<number>();
    for (const part of scene.parts) {
      all++;
      const k = seen.findIndex((b, i) => !used.has(i) && Math.hypot(b.xMm - part.xMm, b.yMm - part.yMm) < 0.35);
      if (k < 0) continue;
      used.add(k);
      found++;
      if (seen[k].pattern === part.pattern) right++;
    }
    wrong += seen.length - used.size;
  }
  // The bars of the benchmark, on one of its kind.
  expect(found / all).toBeGreaterThanOrEqual(0.9);
  expect(right / found).toBeGreaterThanOrEqual(0.85);
  expect(wrong / (found + wrong)).toBeLessThanOrEqual(0.05);
});

test('a bare board shows nothing: neither print, nor vias, nor traces', () => {
  expect(look({ ...strewnScene(7), parts: [] })).toEqual([]);
});

test('a part that is turned is seen as turned', () => {
  const scene = strewnScene(8);
  const part = { ref: 'C1', pattern: 'CHIP-2012', look: 'capacitor', bodyMm: [2, 1.25], turned: true } as const;
  const [seen] = look({ ...scene, parts: [{ ...part, xMm: 20, yMm: 15 }] });
  expect(seen).toMatchObject({ pattern: 'CHIP-2012', rotationDeg: 90 });
  expect(Math.hypot(seen.xMm - 20, seen.yMm - 15)).toBeLessThan(0.1);
});
