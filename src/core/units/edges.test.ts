import {
  formatAmp,
  formatBytes,
  formatChance,
  formatDrop,
  formatHex,
  formatInHundred,
  formatMinutes,
  formatNominalOhm,
  formatOffset,
  formatOhm,
  formatSeconds,
  formatTempC,
  formatVolt,
  parseFigure,
  resistorsBetween,
} from '.';

/** What stands at the edges of the rules: the figure where one form ends and the next begins. */
test.each<readonly [string, () => string]>([
  ['10.00 Ω', () => formatOhm(9.996)],
  ['10.0 Ω', () => formatOhm(10)],
  ['100 Ω', () => formatOhm(100)],
  ['1.00 kΩ', () => formatOhm(1000)],
  ['1000 kΩ', () => formatOhm(999_999)],
  ['open', () => formatOhm(1_000_000)],
  ['1 kΩ', () => formatNominalOhm(1000)],
  ['999 Ω', () => formatNominalOhm(999)],
  ['5.00 V', () => formatVolt(5)],
  ['0.263 V', () => formatDrop(0.2625)],
  ['0.49 A', () => formatAmp(0.494)],
  ['224 °C', () => formatTempC(223.6)],
  ['119 s', () => formatSeconds(119)],
  ['2:00 min', () => formatSeconds(120)],
  ['2:05 min', () => formatSeconds(125)],
  ['30 s', () => formatMinutes(0.5)],
  ['60 s', () => formatMinutes(0.999)],
  ['1 min', () => formatMinutes(1)],
  ['60 min', () => formatMinutes(59.6)],
  ['100 %', () => formatChance(0.995)],
  ['> 99 %', () => formatChance(0.9951)],
  ['1 %', () => formatChance(0.005)],
  ['< 1 %', () => formatChance(0.0049)],
  ['1 in 100', () => formatInHundred(0.004)],
  ['76 in 100', () => formatInHundred(0.761)],
  ['99 in 100', () => formatInHundred(0.999)],
  ['300 bytes', () => formatBytes(300)],
  ['1023 bytes', () => formatBytes(1023)],
  ['1 KiB', () => formatBytes(1024)],
  ['1.5 KiB', () => formatBytes(1536)],
  ['1 MiB', () => formatBytes(1 << 20)],
  ['10.1 MiB', () => formatBytes(10.05 * (1 << 20))],
])('%s', (expected, show) => {
  expect(show()).toBe(expected);
});

test('addresses are hexadecimal in capitals, padded', () => {
  expect(formatOffset(0xabc)).toBe('0x000ABC');
  expect(formatHex(0xaf, 4)).toBe('00AF');
});

test.each([
  ['4k7', 4700],
  ['12k5', 12_500],
  ['4k75', 4750],
  ['2M2', 2_200_000],
  ['120m', 0.12],
  ['1.25k', 1250],
  ['12.', 12],
  ['.25', 0.25],
  ['-0,25', -0.25],
  [' 3.3 ', 3.3],
])('%j is read as %d', (text, value) => {
  const figure = parseFigure(text);
  expect(figure.ok && figure.value).toBeCloseTo(value, 12);
});

test.each(['x4k7', '4k7x', 'a1', '1a', '1.2.3', '', '--1'])('%j is no figure', (text) => {
  expect(parseFigure(text).ok).toBe(false);
});

test('both ends of a range of resistors count', () => {
  expect(resistorsBetween('E6', 1000, 10_000)).toEqual([1000, 1500, 2200, 3300, 4700, 6800, 10_000]);
});
