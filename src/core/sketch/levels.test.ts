import { USUAL, usualLoad } from './levels';

/**
 * Closed forms: n equal loads in parallel read the n-th part of one; n independent doubts of a logarithm that weigh alike leave
 * 1/√n of one. So a rail reads its handbook range whatever the number of chips on it; two figures of each cost up to 5 %.
 */
test.each(Object.entries(USUAL).flatMap(([rail, usual]) => [1, 2, 3, 5].map((n) => [rail, n, usual] as const)))(
  '%s over %p chips reads the middle of its range, and reaches to its ends',
  (_rail, count, usual) => {
    const { ohm, within } = usualLoad(usual, count);
    const [low, high] = usual.ohm;
    const parallel = 1 / Array.from({ length: count }, () => 1 / ohm).reduce((sum, g) => sum + g, 0);
    expect(Math.abs(Math.log(parallel / Math.sqrt(low * high)))).toBeLessThan(0.05);
    const reach = Math.exp(Math.log(within) / Math.sqrt(count));
    expect(Math.abs(Math.log(parallel / reach / low))).toBeLessThan(0.1);
    expect(Math.abs(Math.log((parallel * reach) / high))).toBeLessThan(0.1);
  },
);

test('an estimate is given with two figures', () => {
  for (const usual of Object.values(USUAL))
    for (const count of [1, 2, 3]) {
      const { ohm, within } = usualLoad(usual, count);
      expect([ohm, within]).toEqual([Number(ohm.toPrecision(2)), Number(within.toPrecision(2))]);
      expect(within).toBeGreaterThan(1);
    }
});
