/**
 * Preferred numbers for resistors in one decade. Source: IEC 60063. E3 to E24 are tabulated there with values that the
 * formula 10^(i/n) does not give (2.7 … 4.7, 8.2); E48 to E192 follow it to three figures, but for 9.20 in E192.
 */
export const E_SERIES = ['E6', 'E12', 'E24', 'E48', 'E96', 'E192'] as const;
export type ESeries = (typeof E_SERIES)[number];

const E24 = [
  1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2,
  9.1,
];

/** Tolerance that goes with each series. Source: IEC 60063 (E6 ±20 % … E192 ±0.5 %), from memory. */
export const E_TOLERANCE: Readonly<Record<ESeries, number>> = {
  E6: 0.2,
  E12: 0.1,
  E24: 0.05,
  E48: 0.02,
  E96: 0.01,
  E192: 0.005,
};

/** The values of one decade, 1 up to but not including 10. */
export function preferredValues(series: ESeries): readonly number[] {
  const count = Number(series.slice(1));
  if (count <= 24) return E24.filter((_, i) => i % (24 / count) === 0);
  return Array.from({ length: count }, (_, i) => {
    const value = Math.round(100 * 10 ** (i / count)) / 100;
    return value === 9.19 ? 9.2 : value;
  });
}

/** Every value of a series between two resistances, both included, rising, ohm. */
export function resistorsBetween(series: ESeries, fromOhm: number, toOhm: number): number[] {
  const decade = preferredValues(series);
  const values: number[] = [];
  for (let power = Math.floor(Math.log10(fromOhm)); 10 ** power <= toOhm; power++) {
    for (const v of decade) {
      const ohm = Number((v * 10 ** power).toPrecision(4));
      if (ohm >= fromOhm && ohm <= toOhm) values.push(ohm);
    }
  }
  return values;
}
