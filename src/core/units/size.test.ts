import { parseSizeMm } from './size';

test.each<[string, [number, number]]>([
  ['60 40', [60, 40]],
  ['  60.5   40 ', [60.5, 40]],
  ['60 × 40', [60, 40]],
  ['60x40', [60, 40]],
  ['60,5 40', [60.5, 40]],
  ['60;40', [60, 40]],
])('"%s" is a size in mm', (text, size) => expect(parseSizeMm(text)).toEqual({ ok: true, value: size }));

test.each(['', '60', '60 40 2', '60 0', '-60 40', '60 wide', '0 40'])(
  '"%s" is none, and the sentence says so',
  (text) => {
    const size = parseSizeMm(text);
    expect(size.ok ? '' : size.problems[0].message).toBe(
      `Expected width and height in mm, as in 60 40; got "${text}".`,
    );
  },
);
