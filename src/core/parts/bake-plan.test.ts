import { bakeWays } from './bake-plan';

test('hours by level and temperature (J-STD-033 bake table, bodies up to 1.4 mm, from memory)', () => {
  expect(bakeWays('3', 0.9).map((w) => [w.tempC, w.hours])).toEqual([
    [125, 9],
    [90, 33],
    [40, 312],
  ]);
  expect(bakeWays('5a', 1.4)[0].hours).toBe(16);
});

test('level 1 needs no bake; a thick body is not in the table', () => {
  expect(bakeWays('1', 0.9)).toEqual([]);
  expect(bakeWays('3', 2)).toEqual([]);
});

test('only the mildest way leaves a part in its tape', () => {
  expect(
    bakeWays('3', 0.9)
      .filter((w) => w.needs.startsWith('in tape'))
      .map((w) => w.tempC),
  ).toEqual([40]);
});
