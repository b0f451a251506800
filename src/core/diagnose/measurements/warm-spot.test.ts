import { demoBoard } from '../../../../demo/files';
import { suspects, updateBelief } from '../belief';
import { FaultCase } from '../case';
import type { Fault } from '../faults';
import { interpretReading, testCaution } from '../measurement';
import { proposeTests } from '../next';
import { Predictor } from '../predictor';
import type { Reading } from '../reading';
import type { WarmSpotMeasurement } from './warm-spot';

const predictor = Predictor.of(demoBoard('heronlog-4-c'));
const NONE = new Set<string>();
const on = (net: string): WarmSpotMeasurement => ({ kind: 'warmSpot', net });
const fault = (id: string): Fault => predictor.faults.find((f) => f.id === id)!;
const chance = (net: string, f: Fault, absent = NONE): Readonly<Record<string, number>> => {
  const prediction = predictor.predict(on(net), f, absent, NONE);
  if (prediction.kind !== 'choice') throw new Error('expected named answers');
  return prediction.chance;
};
const AON33 = ['U4', 'C14', 'C15'].filter((ref) => predictor.faults.some((f) => f.id === `${ref}/short/AON33`));
const shorted: Reading[] = [
  { measurement: { kind: 'groundResistance', net: 'AON33' }, value: { kind: 'figure', value: 1.6 } },
];
const asked = { access: 'out', absent: NONE, replaced: [], taken: shorted } as const;

test('the part that holds the short is the warmest in 85 of 100, whichever it is', () => {
  expect(AON33.length).toBeGreaterThan(1);
  for (const ref of AON33) {
    const chances = chance('AON33', fault(`${ref}/short/AON33`));
    expect(chances[ref]).toBeGreaterThanOrEqual(0.85);
    expect(Object.values(chances).reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9);
  }
});

test('without a short nothing gets warm; a short behind a fuse, a coil or a filter line still does', () => {
  const { board } = predictor;
  expect(chance('AON33', fault('U4/dead')).none).toBeGreaterThan(0.9);
  const f1 = board.parts.find((p) => p.ref === 'F1')!;
  const [before, behind] = [f1.pins['1'], f1.pins['2']];
  const held = predictor.faults.find(
    (f) =>
      f.effects.length === 1 && f.effects[0].kind === 'shunt' && f.effects[0].net === behind && f.ref.startsWith('C'),
  )!;
  expect(chance(before, held)[held.ref]).toBeGreaterThanOrEqual(0.85);
  // With the fuse off the current does not get there.
  expect(chance(before, held, new Set(['F1'])).none).toBeGreaterThan(0.9);
});

test('it tells parts of one net apart, which resistance cannot', () => {
  const before = suspects(updateBelief(predictor, shorted, []));
  const seen: Reading = { measurement: on('AON33'), value: { kind: 'choice', choice: 'C14' } };
  const after = suspects(updateBelief(predictor, [...shorted, seen], []));
  const p = (list: typeof before, ref: string): number => list.find((s) => s.ref === ref)!.p;
  expect(before[0].ref).not.toBe('C14');
  expect(after[0].ref).toBe('C14');
  expect(p(after, 'C14')).toBeGreaterThan(3 * p(before, 'C14'));
});

test('it is proposed where a short is likely, and nowhere else; not where the bench has no supply for it', () => {
  const kinds = (readings: Reading[], practice = {}) =>
    proposeTests(updateBelief(predictor, readings, []), { ...asked, taken: readings, practice }).filter(
      (t) => t.measurement.kind === 'warmSpot',
    );
  expect(kinds(shorted).map((t) => t.measurement)).toContainEqual(on('AON33'));
  expect(kinds([])).toEqual([]);
  expect(kinds(shorted, { without: ['warmSpot'] })).toEqual([]);
});

test('the table says what the plain prediction says, for every pair of faults that it can tell apart', () => {
  const faultCase = FaultCase.of(predictor, []);
  const table = faultCase.table(on('AON33'), NONE, NONE);
  for (let a = 0; a < predictor.faults.length; a += 7)
    for (let b = 0; b < a; b += 5) {
      const [x, y] = [predictor.faults[a], predictor.faults[b]];
      const both: Fault = { ...x, id: `${x.id}+${y.id} twin`, effects: [...x.effects, ...y.effects] };
      const row = table.rows[table.rowOf[table.keyOf[a] * table.keys + table.keyOf[b]]];
      const plain = predictor.predict(on('AON33'), both, NONE, NONE);
      if (row.kind !== 'choice' || plain.kind !== 'choice') throw new Error('expected named answers');
      for (const [name, p] of Object.entries(plain.chance)) expect(row.chance[name]).toBeCloseTo(p, 9);
    }
});

test('what was seen is told, and the caution for limit and solvent comes with it', () => {
  const say = (choice: string): string =>
    interpretReading(predictor, on('AON33'), { kind: 'choice', choice }, NONE).message;
  expect(say('C14')).toBe('C14 takes the current: it holds the short');
  expect(say('none')).toMatch(/unlikely/);
  expect(say('elsewhere')).toMatch(/traces, joints and screws/);
  expect(testCaution(on('AON33'))).toMatch(/Limit first/);
  expect(testCaution(on('AON33'))).toMatch(/mist burn/);
});
