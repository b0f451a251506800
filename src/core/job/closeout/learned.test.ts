import { seededRandom } from '../../math';
import { factorRange } from '..';
import { coverage } from '../../../../demo/tests/repeats';

test('after 500 closed jobs the stated 95 % ranges hold the truth in 93 to 97 % of repeats (a sample; the rest in bench)', () => {
  const held = coverage(400, seededRandom(95));
  for (const share of Object.values(held)) {
    expect(share).toBeGreaterThan(0.93);
    expect(share).toBeLessThan(0.97);
  }
});

test('a factor’s range closes in with the jobs, round what was seen', () => {
  const few = factorRange(2, 1, 10);
  const many = factorRange(200, 100, 1000);
  expect(few.high - few.low).toBeGreaterThan(many.high - many.low);
  expect([many.low, many.high].map((x) => Math.round(10 * x) / 10)).toEqual([1.7, 2.2]);
  expect(factorRange(0, 0, 0)).toEqual({ low: 0.1, high: 20 });
});
