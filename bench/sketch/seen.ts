/** Parts seen in drawn photographs, and a plain contour method of a vision library beside it. */
import { homographyOf, seenBodies, straightened, type Pixels, type SeenBody } from '../../src/core/photo';
import { photographed, strewnScene, type BoardScene } from '../../src/core/photo/tests/board-scene';
import { mapPoint, type Homography } from '../../src/core/site';
import { normalDraw, seededRandom } from '../../src/core/math';
import { LAND_PATTERNS } from '../../src/core/sketch';
import { note, ratio, section } from '../print';
import { contourRects } from './contours';

const PHOTOGRAPHS = 60;
/** Photographs are some 1700 px wide, askew, their corners clicked 2 px off. */
const WIDE_PX = 1500;
const CLICK_PX = 2;
const LOOK_PX_PER_MM = 16;
/** A part counts as found where its middle is so near, mm: two-pad parts and chips. */
const NEAR_MM = { two: 0.35, chip: 0.5 };

interface Tally {
  chips: number;
  chipsFound: number;
  two: number;
  twoFound: number;
  right: number;
  seen: number;
  wrong: number;
}
const nothing = (): Tally => ({ chips: 0, chipsFound: 0, two: 0, twoFound: 0, right: 0, seen: 0, wrong: 0 });

function count(tally: Tally, { parts }: BoardScene, seen: readonly Pick<SeenBody, 'xMm' | 'yMm' | 'pattern'>[]): void {
  const used = new Set<number>();
  for (const p of parts) {
    const isTwo = p.pattern.startsWith('CHIP');
    const near = isTwo ? NEAR_MM.two : NEAR_MM.chip;
    const k = seen.findIndex((b, i) => !used.has(i) && Math.hypot(b.xMm - p.xMm, b.yMm - p.yMm) < near);
    tally[isTwo ? 'two' : 'chips']++;
    if (k < 0) continue;
    used.add(k);
    tally[isTwo ? 'twoFound' : 'chipsFound']++;
    if (seen[k].pattern === p.pattern) tally.right++;
  }
  tally.seen += seen.length;
  tally.wrong += seen.length - used.size;
}

function photograph(seed: number): { scene: BoardScene; flat: Pixels } {
  const scene = strewnScene(seed);
  const random = seededRandom(seed + 500);
  const [w, h] = scene.sizeMm;
  const s = WIDE_PX / w;
  const lean = (): number => 0.001 * normalDraw(random);
  const camera: Homography = [s, normalDraw(random), 70, normalDraw(random), s, 60, lean(), lean()];
  const photo = photographed(scene, camera, 1700, Math.round(h * s + 160));
  const corners = [
    { x: 0, y: 0 },
    { x: w, y: 0 },
    { x: w, y: h },
    { x: 0, y: h },
  ].map((mm) => {
    const { x, y } = mapPoint(camera, mm);
    return { mm, px: { x: x + CLICK_PX * normalDraw(random), y: y + CLICK_PX * normalDraw(random) } };
  });
  const map = homographyOf(corners);
  if (!map.ok) throw new Error(map.problems[0].message);
  return { scene, flat: straightened(photo, map.value, w, h, LOOK_PX_PER_MM) };
}

section(`Parts seen in ${PHOTOGRAPHS} drawn photographs, corners clicked ${CLICK_PX} px off`);
const choices = LAND_PATTERNS.filter((p) => p.seen);
const [own, plain] = [nothing(), nothing()];
let [ownMs, plainMs] = [0, 0];
for (let seed = 1; seed <= PHOTOGRAPHS; seed++) {
  const { scene, flat } = photograph(seed);
  let start = performance.now();
  count(own, scene, seenBodies(flat, LOOK_PX_PER_MM, choices));
  ownMs += performance.now() - start;
  start = performance.now();
  count(plain, scene, await contourRects(flat, LOOK_PX_PER_MM));
  plainMs += performance.now() - start;
}
const share = (a: number, b: number): number => a / Math.max(1, b);
ratio('chips found', share(own.chipsFound, own.chips), 'at least 0.90');
ratio('two-pad parts found', share(own.twoFound, own.two), 'at least 0.80');
ratio('false among what is seen', share(own.wrong, own.seen), 'at most 0.05');
ratio('package right, of those found', share(own.right, own.chipsFound + own.twoFound), 'at least 0.85');
note(
  `plain contours: chips ${share(plain.chipsFound, plain.chips).toFixed(2)}, two-pad ${share(plain.twoFound, plain.two).toFixed(2)}, false ${share(plain.wrong, plain.seen).toFixed(2)}`,
);
ratio('time, own / plain contours', ownMs / plainMs, 'said, not bound');
