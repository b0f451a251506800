import { seededRandom } from '../math';
import { alignImages, nextDifference, compareAll, stretchAt } from '.';

const random = seededRandom(17);
const noise = (n: number): Uint8Array => Uint8Array.from({ length: n }, () => 256 * random());
const first = noise(4096);
const changed = Uint8Array.from(first);
for (const at of [100, 2000, 2001, 4000]) changed[at] ^= 0xff;
const longer = Uint8Array.from([...first.slice(0, 1500), ...noise(32), ...first.slice(1500)]);

test('each image is laid against the first; bytes that differ, are more, or moved are counted', () => {
  const told: number[] = [];
  const { against, overviews } = compareAll([first, first, changed, longer], 16, undefined, (done) => told.push(done));
  expect(against.map(({ differingBytes, movedBytes }) => [differingBytes, movedBytes])).toEqual([
    [0, 0],
    [4, 0],
    [32, 4096 - 1500],
  ]);
  expect(overviews.map((o) => o.length)).toEqual([16, 16, 16, 16]);
  expect(overviews[0].every((s) => s.differs === 0)).toBe(true);
  const where = overviews[2].flatMap((s, k) => (s.differs > 0 ? [k] : []));
  expect(where).toEqual([0, 7, 15]);
  expect(overviews[2][7].differs).toBeCloseTo(2 / 256, 12);
  expect(told).toEqual([0, 1 / 3, 2 / 3]);
});

test('regions are compared only where both images are of the family', () => {
  const family = {
    ...{ format: 'unisolda-image-family/1' as const, id: 'plain', name: 'Plain', sizeBytes: 4096, magicHex: '00' },
    regions: [{ name: 'all', offset: 0, length: 4096, meaning: 'code' as const }],
  };
  const { against } = compareAll([first, changed, longer], 4, family);
  expect(against.map((a) => a.regions.map((r) => r.differingBytes))).toEqual([[4], []]);
});

test('one image alone is only looked over', () => {
  expect(compareAll([first], 8)).toEqual({ against: [], overviews: [expect.any(Array)] });
});

test('differences are stepped through in both directions, over all images, to the last', () => {
  const against = [alignImages(first, changed), alignImages(first, longer)];
  const forward: number[] = [];
  for (let at: number | undefined = -1; (at = nextDifference(against, at, 1)) !== undefined;) forward.push(at);
  expect(forward).toEqual([100, 1500, 2000, 4000]);
  const back: number[] = [];
  for (let at: number | undefined = 4096; (at = nextDifference(against, at, -1)) !== undefined;) back.push(at);
  expect(back).toEqual([...forward].reverse());
  expect(nextDifference([alignImages(first, first)], 0, 1)).toBeUndefined();
});

test('the stretch at an offset is the one that holds it', () => {
  const aligned = alignImages(first, changed);
  for (const at of [0, 99, 100, 101, 1999, 2001, 4095]) {
    const { offset, length } = aligned[stretchAt(aligned, at)];
    expect(at >= offset && at < offset + length).toBe(true);
  }
});
