import { seededRandom } from '../math';
import { resistorsBetween } from '../units';
import { STRAP_TOTAL_OHM, decodeStrap, designOneResistor, designStrap, type StrapWish } from './straps';

test('a divider reads into its bin (Kirchhoff: share = bottom over both)', () => {
  const read = decodeStrap({ topOhm: 47_000, bottomOhm: 33_000, tolerance: 0.01 }, 4);
  expect(read.share).toBeCloseTo(0.4125, 12);
  expect([read.bin, read.sure]).toEqual([1, true]);
  expect([read.lowest, read.highest]).toEqual([
    expect.closeTo(32_670 / (47_470 + 32_670), 12),
    expect.closeTo(33_330 / (46_530 + 33_330), 12),
  ]);
});

test('a divider near a bin’s edge is not sure', () => {
  expect(decodeStrap({ topOhm: 10_000, bottomOhm: 10_000, tolerance: 0.05 }, 4)).toMatchObject({ bin: 2, sure: false });
});

test('the ends of the scale are the first and the last bin', () => {
  expect(decodeStrap({ topOhm: 1e6, bottomOhm: 1e-3, tolerance: 0.01 }, 8).bin).toBe(0);
  expect(decodeStrap({ topOhm: 1e-3, bottomOhm: 1e6, tolerance: 0.01 }, 8).bin).toBe(7);
});

/** Nearest to the middle over every pair, by plain search. */
function exhaustive(wish: StrapWish): number | undefined {
  let best: number | undefined;
  for (const topOhm of wish.values)
    for (const bottomOhm of wish.values) {
      if (topOhm + bottomOhm < wish.totalOhm[0] || topOhm + bottomOhm > wish.totalOhm[1]) continue;
      const corners = [-1, 1].flatMap((a) =>
        [-1, 1].map((b) => {
          const [top, bottom] = [topOhm * (1 + a * wish.tolerance), bottomOhm * (1 + b * wish.tolerance)];
          return bottom / (top + bottom);
        }),
      );
      const inside = corners.every((s) => s >= wish.bin / wish.bins && s < (wish.bin + 1) / wish.bins);
      if (!inside) continue;
      const off = Math.abs(bottomOhm / (topOhm + bottomOhm) - (wish.bin + 0.5) / wish.bins);
      if (best === undefined || off < best) best = off;
    }
  return best;
}

test('the design is the best of all pairs, on random wishes (exhaustive search)', () => {
  const random = seededRandom(5);
  const series = ['E6', 'E12', 'E24'] as const;
  for (let k = 0; k < 150; k++) {
    const bins = 2 + Math.floor(random() * 15);
    const all = resistorsBetween(series[k % 3], 4700, 330_000);
    const wish: StrapWish = {
      bins,
      bin: Math.floor(random() * bins),
      tolerance: [0.01, 0.05, 0.1][Math.floor(random() * 3)],
      values: random() < 0.5 ? all : all.filter(() => random() < 0.2),
      totalOhm: STRAP_TOTAL_OHM,
    };
    const design = designStrap(wish);
    const best = exhaustive(wish);
    expect([k, design.ok ? design.value.offCentre : undefined]).toEqual([
      k,
      best === undefined ? undefined : expect.closeTo(best, 10),
    ]);
  }
});

test('one resistor is enough where it is', () => {
  const wish = {
    bins: 8,
    bin: 2,
    tolerance: 0.01,
    values: resistorsBetween('E24', 1000, 1e6),
    totalOhm: STRAP_TOTAL_OHM,
    now: { topOhm: 47_000, bottomOhm: 33_000 },
  };
  const one = designOneResistor(wish);
  expect(one).toMatchObject({ ok: true, value: { bin: 2, sure: true } });
  if (one.ok) expect(one.value.topOhm === 47_000 || one.value.bottomOhm === 33_000).toBe(true);
});

test('what cannot be met is said with what was asked', () => {
  const wish = { bins: 16, bin: 3, tolerance: 0.1, values: [10_000, 47_000], totalOhm: STRAP_TOTAL_OHM };
  expect(designStrap(wish)).toMatchObject({
    ok: false,
    problems: [{ message: expect.stringMatching(/stays inside bin 3 of 16 at ±10.0 %/) }],
  });
  expect(designStrap({ ...wish, bin: 16 })).toMatchObject({
    ok: false,
    problems: [{ message: 'Expected a bin from 0 to 15; got 16.' }],
  });
});

test('whatever the resistors really are within their tolerance, a designed strap reads its bin', () => {
  const random = seededRandom(23);
  const off = (ohm: number, tolerance: number): number => ohm * (1 + tolerance * (2 * random() - 1));
  let read = 0;
  for (let k = 0; k < 60; k++) {
    const bins = 2 + Math.floor(random() * 12);
    const wish: StrapWish = {
      bins,
      bin: Math.floor(random() * bins),
      tolerance: [0.01, 0.05][k % 2],
      values: resistorsBetween('E24', 1000, 1e6),
      totalOhm: STRAP_TOTAL_OHM,
    };
    const design = designStrap(wish);
    if (!design.ok) continue;
    for (let i = 0; i < 50; i++) {
      const [top, bottom] = [off(design.value.topOhm, wish.tolerance), off(design.value.bottomOhm, wish.tolerance)];
      expect(Math.floor((bottom / (top + bottom)) * bins)).toBe(wish.bin);
      read += 1;
    }
  }
  expect(read).toBeGreaterThan(2000);
});
