import { originName, originSchema, originsSummary, TYPED } from './origin';

const METER = { kind: 'instrument', identification: 'Bench,Meter,17,1' } as const;
const FILE = { kind: 'file', name: 'walk.csv', sha256: 'b'.repeat(64) } as const;
const SIMULATED = { kind: 'simulated', by: 'the simulated supply' } as const;

test('each origin is named as a report prints it, one that was never recorded too', () => {
  expect([undefined, TYPED, METER, FILE, SIMULATED].map(originName)).toEqual([
    'origin not recorded',
    'typed',
    'by Bench,Meter,17,1',
    'from walk.csv',
    'simulated, the simulated supply',
  ]);
});

test('readings are counted by their origins, in the order in which those came', () => {
  expect(originsSummary([TYPED, METER, TYPED, undefined, METER, METER])).toBe(
    'Readings: 2 typed, 3 by Bench,Meter,17,1, 1 origin not recorded.',
  );
  expect(originsSummary([TYPED])).toBe('Readings: 1 typed.');
  expect(originsSummary([])).toBeUndefined();
});

test.each([
  ['typed', TYPED, true],
  ['an instrument by its own name', METER, true],
  ['an instrument without one', { kind: 'instrument', identification: '' }, false],
  ['a name longer than 200 letters', { kind: 'simulated', by: 'x'.repeat(201) }, false],
  ['a name of 200 letters', { kind: 'simulated', by: 'x'.repeat(200) }, true],
  ['a file', FILE, true],
  ['a file with what was asked of it', { ...FILE, reader: 'meter table', answers: { comma: 'decimal' } }, true],
  ['a hash that is too short', { ...FILE, sha256: 'b'.repeat(63) }, false],
  ['a hash that is too long', { ...FILE, sha256: 'b'.repeat(65) }, false],
  ['a hash with another letter', { ...FILE, sha256: `${'b'.repeat(63)}g` }, false],
  ['none of the four', { kind: 'dreamt' }, false],
])('%s', (_, origin, reads) => expect(originSchema.safeParse(origin).success).toBe(reads));
