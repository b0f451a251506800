import fc from 'fast-check';
import { draftOf, figuresOf } from './draft';

test('what is kept is shown as it would be typed, and read back as it was', () => {
  const figure = fc.integer({ min: 1, max: 5000 }).map((n) => n / 100);
  fc.assert(
    fc.property(fc.dictionary(fc.constantFrom('fuse', 'coil', 'mux'), figure), (kept) => {
      expect(figuresOf(draftOf(kept))).toEqual({ ...kept });
    }),
  );
  expect(draftOf({ tester: 0.35 }, 100)).toEqual({ tester: '35' });
  expect(figuresOf({ tester: '35' }, 100)).toEqual({ tester: 0.35 });
});

test('an empty field keeps the default, a comma is a point, letters are refused later', () => {
  expect(figuresOf({ a: ' ', b: '1,5', c: 'many' })).toEqual({ b: 1.5, c: Number.NaN });
  expect(draftOf(undefined)).toEqual({});
  expect(draftOf({ a: undefined, b: 2 })).toEqual({ b: '2' });
});
