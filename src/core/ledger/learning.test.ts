import { normalDraw, seededRandom } from '../math';
import { changeOf, leaveOneOut, shareChangeOf } from '.';

const minutes = (seed: number, count: number, middle: number, sdLog = 0.4): number[] => {
  const random = seededRandom(seed);
  return Array.from({ length: count }, () => middle * Math.exp(sdLog * normalDraw(random)));
};

/** The mean and spread of those seen, and nothing else: no law of ours. */
const plainLaw = (seen: readonly number[]) => {
  const logs = seen.map(Math.log);
  const mean = logs.reduce((s, l) => s + l, 0) / logs.length;
  const sdLog = Math.sqrt(logs.reduce((s, l) => s + (l - mean) ** 2, 0) / (logs.length - 1));
  return { minutes: Math.exp(mean + sdLog ** 2 / 2), sdLog };
};

test('learning helps where the shop is not what ships, and is not told to help where it is', () => {
  const ships = { minutes: 20 * Math.exp(0.08), sdLog: 0.4 };
  // Closed form: the gain tends to the Kullback-Leibler divergence of two normals, (ln 2)² / (2 · 0.4²) = 1.50.
  const slow = Array.from({ length: 60 }, (_, k) => leaveOneOut(ships, plainLaw, minutes(k, 200, 40)).gain);
  expect(slow.reduce((s, g) => s + g, 0) / slow.length).toBeCloseTo(Math.log(2) ** 2 / (2 * 0.4 ** 2), 1);
  const same = Array.from({ length: 40 }, (_, k) => leaveOneOut(ships, plainLaw, minutes(100 + k, 60, 20)));
  expect(same.filter((m) => m.gain - m.spread > 0).length).toBeLessThanOrEqual(2);
});

test('too few to say: one job has no spread', () => {
  expect(leaveOneOut({ minutes: 20, sdLog: 0.4 }, plainLaw, [30])).toMatchObject({ seen: 1, spread: Infinity });
});

test('Pettitt’s statistic on a series counted by hand', () => {
  // Ten low, then ten high: U at 10 is the sum of 10 · 10 signs, −100; p = 2 exp(−6 · 100² / (20³ + 20²)).
  const change = changeOf([...minutes(1, 10, 10, 0.01), ...minutes(2, 10, 20, 0.01)])!;
  expect(change.at).toBe(10);
  expect(change.p).toBeCloseTo(2 * Math.exp(-60_000 / 8400), 12);
});

test('a new law is noticed within the jobs that statistics allow, a single odd job and a steady shop are not', () => {
  // 387 of 750 signs are needed for one in a hundred; that is a chance of 0.76 that a later job takes longer, and it is 0.85 here.
  const changes = Array.from({ length: 40 }, (_, k) =>
    changeOf([...minutes(k, 30, 20), ...minutes(1000 + k, 25, 36)]),
  ).filter((c) => c !== undefined);
  expect(changes.length).toBeGreaterThanOrEqual(36);
  const off = changes.map((c) => Math.abs(c.at - 30)).sort((a, b) => a - b);
  expect(off[Math.floor(off.length / 2)]).toBeLessThanOrEqual(2);
  const steady = Array.from({ length: 200 }, (_, k) => changeOf(minutes(k, 45, 20)));
  expect(steady.filter(Boolean).length).toBeLessThanOrEqual(4);
  expect(changeOf([400, ...minutes(3, 40, 20)])).toBeUndefined();
});

test('a share that fell is noticed with where it fell, a steady one hardly ever', () => {
  const draws = (seed: number, count: number, share: number): boolean[] => {
    const random = seededRandom(seed);
    return Array.from({ length: count }, () => random() < share);
  };
  const fell = Array.from({ length: 40 }, (_, k) => shareChangeOf([...draws(k, 40, 0.92), ...draws(500 + k, 25, 0.4)]));
  expect(fell.filter((c) => c && Math.abs(c.at - 40) <= 6).length).toBeGreaterThanOrEqual(32);
  const steady = Array.from({ length: 200 }, (_, k) => shareChangeOf(draws(k, 65, 0.85)));
  expect(steady.filter(Boolean).length).toBeLessThanOrEqual(4);
});
