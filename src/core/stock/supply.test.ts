import { supplyFromId, supplyId, supplyLabel } from './supply';
import { supplySchema, type Supply } from './supply-schema';

const ALL: readonly (readonly [Supply, string, string])[] = [
  [{ kind: 'chip', chip: 'C-105' }, 'C-105', 'C-105'],
  [{ kind: 'lot', lot: 'L-12' }, 'L-12', 'lot L-12'],
  [{ kind: 'donor', donor: 'D-3', ref: 'U13' }, 'D-3/U13', 'donor D-3, U13'],
  [{ kind: 'buy', typeId: 'heron-pd-r2' }, 'buy heron-pd-r2', 'bought new'],
  [{ kind: 'none' }, 'leave off', 'left off: optional on this board'],
];

test.each(ALL)('%j has one name and its words, and is read back from the name', (supply, id, label) => {
  expect(supplyId(supply)).toBe(id);
  expect(supplyLabel(supply)).toBe(label);
  expect(supplyFromId(id)).toEqual(supply);
  expect(supplySchema.parse(supply)).toEqual(supply);
});

test('a chip says where it was before it was a chip of its own', () => {
  expect(supplyLabel({ kind: 'chip', chip: 'C-7', lot: 'L-12' })).toBe('C-7 of lot L-12');
  expect(supplyLabel({ kind: 'chip', chip: 'C-7', donor: 'D-3' })).toBe('C-7 from donor D-3');
});

test('two chips are two supplies, whatever lot they are of', () => {
  expect(supplyId({ kind: 'chip', chip: 'C-7', lot: 'L-12' })).toBe(supplyId({ kind: 'chip', chip: 'C-7' }));
  expect(supplyId({ kind: 'chip', chip: 'C-8', lot: 'L-12' })).not.toBe(supplyId({ kind: 'chip', chip: 'C-7' }));
});
