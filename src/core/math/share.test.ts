import { jStat } from 'jstat';
import { counted, shareBelief, shareRange } from '.';

test('a share’s range is the Beta distribution’s central 95 % (jStat)', () => {
  for (const [mean, cases, hits, misses] of [
    [0.02, 20, 0, 0],
    [0.02, 20, 3, 40],
    [0.5, 2, 17, 1],
    [0.3, 12.5, 0, 200],
  ]) {
    const belief = counted(shareBelief(mean, cases), hits, misses);
    const { mean: told, low, high } = shareRange(belief);
    expect(told).toBeCloseTo((mean * cases + hits) / (cases + hits + misses), 12);
    expect(low).toBeCloseTo(jStat.beta.inv(0.025, belief.a, belief.b), 6);
    expect(high).toBeCloseTo(jStat.beta.inv(0.975, belief.a, belief.b), 6);
  }
});

test('counting closes the range in, and an empty count leaves it', () => {
  const before = shareBelief(0.1, 20);
  expect(counted(before, 0, 0)).toEqual(before);
  const width = (cases: number): number => {
    const { low, high } = shareRange(counted(before, 0.1 * cases, 0.9 * cases));
    return high - low;
  };
  expect(width(10)).toBeGreaterThan(width(100));
  expect(width(100)).toBeGreaterThan(width(1000));
});
