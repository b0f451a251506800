import { E_SERIES, E_TOLERANCE, preferredValues, resistorsBetween } from './e-series';
import { formatNominalOhm } from './format';

/** The printed tables. Source: IEC 60063:2015, tables 1 and 2 (E48 in full; from memory). */
const E6 = [1.0, 1.5, 2.2, 3.3, 4.7, 6.8];
const E12 = [1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2];
const E24 = '1.0 1.1 1.2 1.3 1.5 1.6 1.8 2.0 2.2 2.4 2.7 3.0 3.3 3.6 3.9 4.3 4.7 5.1 5.6 6.2 6.8 7.5 8.2 9.1'
  .split(' ')
  .map(Number);
const E48 =
  '1.00 1.05 1.10 1.15 1.21 1.27 1.33 1.40 1.47 1.54 1.62 1.69 1.78 1.87 1.96 2.05 2.15 2.26 2.37 2.49 2.61 2.74 2.87 3.01 3.16 3.32 3.48 3.65 3.83 4.02 4.22 4.42 4.64 4.87 5.11 5.36 5.62 5.90 6.19 6.49 6.81 7.15 7.50 7.87 8.25 8.66 9.09 9.53'
    .split(' ')
    .map(Number);
const E96_BETWEEN =
  '1.02 1.07 1.13 1.18 1.24 1.30 1.37 1.43 1.50 1.58 1.65 1.74 1.82 1.91 2.00 2.10 2.21 2.32 2.43 2.55 2.67 2.80 2.94 3.09 3.24 3.40 3.57 3.74 3.92 4.12 4.32 4.53 4.75 4.99 5.23 5.49 5.76 6.04 6.34 6.65 6.98 7.32 7.68 8.06 8.45 8.87 9.31 9.76'
    .split(' ')
    .map(Number);

test.each([
  ['E6', E6],
  ['E12', E12],
  ['E24', E24],
  ['E48', E48],
] as const)('%s is as printed in IEC 60063', (series, printed) => {
  expect(preferredValues(series)).toEqual(printed);
});

test('E96 is E48 with the printed values between', () => {
  const e96 = preferredValues('E96');
  expect(e96.filter((_, i) => i % 2 === 0)).toEqual(E48);
  expect(e96.filter((_, i) => i % 2 === 1)).toEqual(E96_BETWEEN);
});

test('E192 holds E96, and 9.20 where the formula gives 9.19', () => {
  const e192 = preferredValues('E192');
  expect(e192).toHaveLength(192);
  expect(preferredValues('E96').every((v) => e192.includes(v))).toBe(true);
  expect([e192.includes(9.2), e192.includes(9.19)]).toEqual([true, false]);
  expect(e192.slice(0, 6)).toEqual([1, 1.01, 1.02, 1.04, 1.05, 1.06]);
});

test('values between two resistances cross decades without a figure too many', () => {
  expect(resistorsBetween('E6', 680, 22_000)).toEqual([
    680, 1000, 1500, 2200, 3300, 4700, 6800, 10_000, 15_000, 22_000,
  ]);
});

test('E48 to E192 are the formula rounded to three figures (closed form), 9.20 excepted', () => {
  for (const series of ['E48', 'E96', 'E192'] as const) {
    const values = preferredValues(series);
    values.forEach((v, i) => {
      if (v === 9.2) return;
      expect(Math.abs(v - 10 ** (i / values.length))).toBeLessThanOrEqual(0.005);
    });
  }
});

test('each series has its tolerance, and every finer one holds the values of the coarser by its side', () => {
  expect(E_SERIES.map((s) => E_TOLERANCE[s])).toEqual([0.2, 0.1, 0.05, 0.02, 0.01, 0.005]);
  for (const [coarse, fine] of [
    ['E6', 'E12'],
    ['E12', 'E24'],
    ['E48', 'E96'],
    ['E96', 'E192'],
  ] as const)
    expect(preferredValues(coarse).every((v) => preferredValues(fine).includes(v))).toBe(true);
});

test.each([
  [33_000, '33 kΩ'],
  [4700, '4.7 kΩ'],
  [330, '330 Ω'],
  [1_000_000, '1000 kΩ'],
])('%f is printed as %s', (ohm, words) => {
  expect(formatNominalOhm(ohm)).toBe(words);
});
