import { formatBytes, formatChance, formatOhm, formatSeconds, parseFigure } from '.';

test.each([
  ['0.4', 0.4],
  ['0,4', 0.4],
  ['4.7k', 4700],
  ['4k7', 4700],
  ['2M2', 2.2e6],
  ['20m', 0.02],
  ['-.5', -0.5],
])('%p is read as %p', (text, value) => {
  const parsed = parseFigure(text);
  expect(parsed.ok && parsed.value).toBeCloseTo(value, 9);
});

test.each(['abc', '', '1.2.3', '4kk', '1e5', '--2'])('%p is not a number at the bench', (text) => {
  const parsed = parseFigure(text);
  expect(parsed.ok ? '' : parsed.problems[0].message).toBe(
    `Expected a number such as 0.4, 4.7k or 4k7; got "${text}".`,
  );
});

test('figures as they are read', () => {
  expect([0.4, 12, 470, 4700, 88800, 2e6].map(formatOhm)).toEqual([
    '0.40 Ω',
    '12.0 Ω',
    '470 Ω',
    '4.70 kΩ',
    '88.8 kΩ',
    'open',
  ]);
  expect([41, 125].map(formatSeconds)).toEqual(['41 s', '2:05 min']);
  expect([0.999, 0.5, 0.001].map(formatChance)).toEqual(['> 99 %', '50 %', '< 1 %']);
  expect([300, 65536, 1.5 * 2 ** 20].map(formatBytes)).toEqual(['300 bytes', '64 KiB', '1.5 MiB']);
});
