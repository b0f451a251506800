import fc from 'fast-check';
import { BAKE_TEMPS_C, MOISTURE_LEVELS, bakeH, floorLifeH, moistureState } from './moisture';

const DAY = 24;

test('floor life is that of J-STD-033', () => {
  const wanted = [Infinity, 365 * DAY, 28 * DAY, 168, 72, 48, 24];
  expect(MOISTURE_LEVELS.slice(0, 7).map(floorLifeH)).toEqual(wanted);
});

/** Hours at 125, 90 and 40 °C for bodies up to 1.4 mm. Source: J-STD-033 (values from memory). */
test.each([
  ['2', [5, 17, 8 * DAY]],
  ['2a', [7, 23, 9 * DAY]],
  ['3', [9, 33, 13 * DAY]],
  ['4', [11, 37, 15 * DAY]],
  ['5', [12, 41, 17 * DAY]],
  ['5a', [16, 54, 22 * DAY]],
] as const)('level %s is baked as in J-STD-033', (level, wanted) => {
  expect(BAKE_TEMPS_C.map((t) => bakeH(level, 0.85, t))).toEqual(wanted);
  expect(bakeH(level, 1.4, 125)).toBe(wanted[0]);
});

test('a thicker body is not guessed, level 1 needs no bake', () => {
  expect(bakeH('3', 1.8, 125)).toBeUndefined();
  expect(bakeH('1', 1.8, 125)).toBe(0);
});

test('a sealed bag has all its life; an open one counts down; the dry cabinet holds the clock', () => {
  expect(moistureState('3', [], 1000)).toMatchObject({ leftH: 168, bake: false });
  const marks = [
    { atH: 10, what: 'open' },
    { atH: 30, what: 'dry' },
    { atH: 500, what: 'out' },
  ] as const;
  expect(moistureState('3', marks, 560)).toMatchObject({ exposedH: 80, leftH: 88, bake: false });
  expect(moistureState('3', marks, 700)).toMatchObject({ leftH: 0, bake: true });
});

test('a bake starts the clock anew', () => {
  const marks = [
    { atH: 0, what: 'open' },
    { atH: 400, what: 'baked' },
  ] as const;
  expect(moistureState('4', marks, 410)).toMatchObject({ exposedH: 10, leftH: 62, bake: false });
});

test('what nobody knows is baked, and level 6 always', () => {
  expect(moistureState('3', undefined, 0)).toMatchObject({ bake: true, unknown: true });
  expect(moistureState('1', undefined, 0).bake).toBe(false);
  expect(moistureState('6', [{ atH: 0, what: 'open' }], 1).bake).toBe(true);
});

test('waiting never gives floor life back; only a bake does', () => {
  const mark = fc.record({ gapH: fc.integer({ min: 0, max: 60 }), what: fc.constantFrom('open', 'dry', 'out') });
  fc.assert(
    fc.property(fc.array(mark, { maxLength: 8 }), fc.integer({ min: 0, max: 200 }), (gaps, waitH) => {
      let atH = 0;
      const marks = gaps.map(({ gapH, what }) => ({ atH: (atH += gapH), what }) as const);
      const before = moistureState('3', marks, atH);
      const after = moistureState('3', marks, atH + waitH);
      expect(after.leftH).toBeLessThanOrEqual(before.leftH);
      expect(before.leftH).toBe(Math.max(0, floorLifeH('3') - before.exposedH));
      const baked = moistureState('3', [...marks, { atH: atH + waitH, what: 'baked' }], atH + waitH);
      expect(baked).toMatchObject({ exposedH: 0, bake: false });
    }),
  );
});
