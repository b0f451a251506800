import { z } from 'zod';
import { problemText } from '../result';
import { fromStored, fromStoredText, toStored, type StoredForms } from './stored';

type Body = { readonly kind: 'lot'; readonly count: number; readonly unit: string };

/** A form in its third version: first "n", then "count", then a unit beside it. */
const FORMS: StoredForms<Body> = {
  types: ['lot'],
  formOf: (type) =>
    type === 'lot'
      ? {
          version: 3,
          schema: z.object({ kind: z.literal('lot'), count: z.number(), unit: z.string() }),
          upcasters: [({ n, ...rest }) => ({ ...rest, count: n }), (data) => ({ ...data, unit: 'pieces' })],
        }
      : undefined,
};
const read = (input: unknown): Body | string => {
  const found = fromStored(FORMS, input);
  return found.ok ? found.value : problemText(found.problems);
};
const NOW: Body = { kind: 'lot', count: 4, unit: 'reels' };

test('what is written is read back the same', () => {
  expect(toStored(FORMS, NOW)).toEqual({ type: 'lot', version: 3, data: { count: 4, unit: 'reels' } });
  expect(read(toStored(FORMS, NOW))).toEqual(NOW);
  expect(fromStoredText(FORMS, JSON.stringify(toStored(FORMS, NOW)))).toEqual({ ok: true, value: NOW });
});

test('older forms are brought up from where they are', () => {
  expect(read({ type: 'lot', version: 1, data: { n: 4 } })).toEqual({ ...NOW, unit: 'pieces' });
  expect(read({ type: 'lot', version: 2, data: { count: 4 } })).toEqual({ ...NOW, unit: 'pieces' });
  // Before there were versions the kind lay beside the rest.
  expect(read({ kind: 'lot', n: 7 })).toEqual({ kind: 'lot', count: 7, unit: 'pieces' });
});

test.each<[string, unknown, string]>([
  [
    'a newer form',
    { type: 'lot', version: 4, data: {} },
    'Expected version 3 or older of lot; got 4: it was written by a newer program.',
  ],
  ['another type', { type: 'sale', version: 1, data: {} }, 'Expected one of the events lot; got "sale".'],
  ['another type of old', { kind: 'sale' }, 'Expected one of the events lot; got "sale".'],
  [
    'version 0',
    { type: 'lot', version: 0, data: {} },
    'Expected an event with its type, version and data; got something else.',
  ],
  [
    'a version that is no whole number',
    { type: 'lot', version: 1.5, data: {} },
    'Expected an event with its type, version and data; got something else.',
  ],
  ['no data', { type: 'lot', version: 3 }, 'Expected an event with its type, version and data; got something else.'],
  [
    'an empty type',
    { type: '', version: 1, data: {} },
    'Expected an event with its type, version and data; got something else.',
  ],
  ['an empty kind', { kind: '' }, 'Expected an event with its type, version and data; got something else.'],
  [
    'a kind of 41 letters',
    { kind: 'x'.repeat(41) },
    'Expected an event with its type, version and data; got something else.',
  ],
  ['nothing', null, 'Expected an event with its type, version and data; got something else.'],
])('%s is a sentence', (_, input, sentence) => expect(read(input)).toBe(sentence));

test('what cannot be read names where', () => {
  expect(read({ type: 'lot', version: 3, data: { count: 'four', unit: 'reels' } })).toMatch(/^lot, count: .+\.$/);
  const strict: StoredForms<Body> = {
    ...FORMS,
    formOf: () => ({ version: 1, upcasters: [], schema: z.custom<Body>(() => false, 'not this') }),
  };
  const found = fromStored(strict, { kind: 'lot' });
  expect(found.ok ? '' : problemText(found.problems)).toBe('lot, as a whole: not this.');
});

test('text that is no JSON is a sentence', () => {
  const found = fromStoredText(FORMS, '{ "type": ');
  expect(found.ok ? '' : problemText(found.problems)).toBe('Expected an event as JSON; got text that is none.');
});
