import { adviseLimit } from '.';

const facts = { volts: 5, drawA: [0.05, 0.3] as const, shortChance: 0.05 };

test('the limit is the cheapest of all steps by the minutes each costs, counted here a second time', () => {
  // Normal integral by the trapezium rule, against the one in use.
  const cdf = (x: number): number => {
    let sum = 0;
    for (let k = 0; k < 4000; k++) sum += Math.exp(-0.5 * (x - 0.0025 * (k + 0.5)) ** 2) * 0.0025;
    return sum / Math.sqrt(2 * Math.PI);
  };
  for (const shortChance of [0.01, 0.05, 0.3, 0.8]) {
    const lost = (limitA: number): number => {
      const sd = Math.log(6) / 4;
      const starts = cdf((Math.log(limitA) - Math.log(0.05 * 0.3) / 2) / sd);
      return shortChance * 4 * 5 * limitA + (1 - shortChance) * (1 - starts) * 2;
    };
    const steps = Array.from({ length: 60 }, (_, k) => 0.05 * (k + 1));
    const best = steps.reduce((a, b) => (lost(b) < lost(a) ? b : a));
    expect(adviseLimit({ ...facts, shortChance }).limitA).toBeCloseTo(best, 9);
  }
});

test('the likelier a short, the lower the limit; a hungrier board gets more', () => {
  const limits = [0.001, 0.05, 0.2, 0.6].map((shortChance) => adviseLimit({ ...facts, shortChance }).limitA);
  expect(limits).toEqual([...limits].sort((a, b) => b - a));
  expect(limits[0]).toBeGreaterThan(limits[3]);
  expect(adviseLimit({ ...facts, drawA: [0.4, 0.8] }).limitA).toBeGreaterThan(adviseLimit(facts).limitA);
  expect(adviseLimit(facts).shortW).toBeCloseTo(5 * adviseLimit(facts).limitA, 9);
});
