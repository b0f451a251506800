import { demoBoard } from '../../../demo/files';
import { partByRef } from '../board';
import { seededRandom } from '../math';
import type { Blob } from './blobs';
import {
  balledPart,
  fullPattern,
  mapPoint,
  neighbourPairs,
  patternWithout,
  sitesOf,
  type Homography,
  type SitePattern,
} from '../site';
import { layPattern } from './lattice';

const LEANING: Homography = [30, -3, 300, 3, 29, 260, 0.002, -0.0015];

/** Spots where the map puts the sites, a share of them left out, with strangers among them. */
function spots(pattern: SitePattern, h: Homography, lost: number, strangers: number, seed: number): Blob[] {
  const random = seededRandom(seed);
  const seen = sitesOf(pattern)
    .filter(() => random() >= lost)
    .map((site) => {
      const at = mapPoint(h, site);
      return { x: at.x + random() - 0.5, y: at.y + random() - 0.5, strength: 40 + 20 * random() };
    });
  const others = Array.from({ length: strangers }, () => ({
    x: 600 * random(),
    y: 520 * random(),
    strength: 20 + 30 * random(),
  }));
  return [...seen, ...others].sort((a, b) => b.strength - a.strength);
}

test.each([
  [fullPattern(12, 9), 0.1, 12],
  [fullPattern(3, 14), 0.05, 6],
  [patternWithout(12, 12, (c, r) => Math.min(c, r, 11 - c, 11 - r) > 2), 0.1, 10],
])('a leaning pattern is laid over its spots, with some lost and strangers among them', (pattern, lost, strangers) => {
  for (let seed = 1; seed <= 4; seed++) {
    const laid = layPattern(spots(pattern, LEANING, lost, strangers, seed), pattern, 30)!;
    for (const site of sitesOf(pattern)) {
      const [is, was] = [mapPoint(laid.toPicture, site), mapPoint(LEANING, site)];
      expect(Math.hypot(is.x - was.x, is.y - was.y)).toBeLessThan(2);
    }
    expect(laid.hit).toBeGreaterThan(0.75);
    expect(laid.spots).toHaveLength(sitesOf(pattern).length);
  }
});

test('no spots, no pattern', () => {
  expect(layPattern([], fullPattern(4, 4), 30)).toBeUndefined();
});

test('sites and their neighbours: an array of c × r has c(r − 1) + r(c − 1) gaps', () => {
  for (const [c, r] of [
    [2, 2],
    [7, 4],
  ])
    expect(neighbourPairs(sitesOf(fullPattern(c, r)))).toHaveLength(c * (r - 1) + r * (c - 1));
  const ring = sitesOf(patternWithout(4, 4, (c, r) => c > 0 && c < 3 && r > 0 && r < 3));
  expect(ring).toHaveLength(12);
  expect(neighbourPairs(ring)).toHaveLength(12);
  expect(ring[0]).toMatchObject({ x: -1.5, y: -1.5, index: 0 });
});

test('the pattern of a part names its balls in the order of its sites', () => {
  const board = demoBoard('heronlog-4-c');
  const pkg = board.packages[partByRef(board, 'U8')!.package];
  const balled = balledPart(pkg)!;
  expect(balled.pins).toHaveLength(100);
  expect(balled.pins.slice(0, 3)).toEqual(['A1', 'A2', 'A3']);
  if (pkg.lands.kind !== 'array') throw new Error('expected an array');
  const fewer = balledPart({ ...pkg, lands: { ...pkg.lands, without: ['A2', 'B1'] } })!;
  expect(fewer.pins.slice(0, 2)).toEqual(['A1', 'A3']);
  expect(fewer.pattern.filled.slice(0, 3)).toEqual([true, false, true]);
  expect(sitesOf(fewer.pattern)).toHaveLength(98);
  expect(balledPart(board.packages[partByRef(board, 'U4')!.package])).toBeUndefined();
});
