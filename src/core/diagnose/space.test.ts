import { demoBoard } from '../../../demo/files';
import type { Reading } from './reading';
import { updateBelief } from './belief';
import { FaultCase } from './case';
import { Predictor } from './predictor';
import { HypothesisSpace } from './space';
import { TestTable, assignRows, type OutcomePartition } from './outcome-partition';
import type { Fault } from './faults';
import { suspectPairs } from './suspect-pairs';
import { likelyRowMass, likelyRows } from './likely';

const fault = (id: string, ref: string, weight: number): Fault => ({
  id,
  ref,
  label: id,
  weight,
  effects: [],
  mendedBy: { kind: 'nothing' },
});
const faults = [fault('a', 'U1', 3), fault('b', 'U1', 1), fault('c', 'U2', 2), fault('outside', '', 4)];
const each = (list: readonly Fault[]): HypothesisSpace =>
  new HypothesisSpace(list, { of: Uint16Array.from(list.keys()), members: list.map((_, i) => [i]) });
const space = each(faults);
const even = new Float64Array(5).fill(1);
/** A test with two rows: it reads "bad" whenever fault c is there. */
const partition: OutcomePartition = {
  keyOf: Uint16Array.from([0, 0, 1, 0]),
  keys: 2,
  rowName: (a, b) => Math.max(a, b),
  predict: (...keys) => ({ kind: 'verdict', failChance: keys.some((k) => k > 0) ? 0.9 : 0.1 }),
};
const table = new TestTable(partition, assignRows(partition));

describe('a small space, worked by hand', () => {
  test('holds every single and every pair once, in the stated order', () => {
    const seen: string[] = [];
    space.forEach((h, i, j) => seen.push(`${h}:${i},${j}`));
    expect(space.size).toBe(10);
    expect(seen).toEqual([
      '0:0,-1',
      '1:1,-1',
      '2:2,-1',
      '3:3,-1',
      '4:0,1',
      '5:0,2',
      '6:0,3',
      '7:1,2',
      '8:1,3',
      '9:2,3',
    ]);
  });

  test('gives pairs of one part, and pairs with "nothing wrong", no chance', () => {
    const board = demoBoard('heronlog-4-c');
    const { p } = space.prior(board, [], {});
    expect(p.reduce((s, v) => s + v, 0)).toBeCloseTo(1, 12);
    expect([p[4], p[6], p[8], p[9]]).toEqual([0, 0, 0, 0]);
    // Singles keep their proportions, and so do the pairs that may be: a and c against b and c as 3 to 1.
    expect(p[0] / p[1]).toBeCloseTo(3, 9);
    expect(p[5] / p[7]).toBeCloseTo(3, 9);
    expect(p[5] + p[7]).toBeCloseTo(0.15, 9);
  });

  test('an update multiplies by the row of each hypothesis and normalises', () => {
    const p = new Float64Array(10).fill(0.1);
    space.update(p, table, Float64Array.from([1, 3]));
    const withC = [2, 5, 7, 9];
    for (let h = 0; h < 10; h++) expect(p[h]).toBeCloseTo((withC.includes(h) ? 3 : 1) / (4 * 3 + 6), 12);
  });

  test('the likely hypotheses are those above the bound, each with its faults', () => {
    const p = Float64Array.from([0.1, 0.05, 0.2, 0.05, 0, 0.3, 0, 0.2, 0, 0.1]);
    const likely = space.likely(p, 0.1);
    expect([...likely.p]).toEqual([0.1, 0.2, 0.3, 0.2, 0.1]);
    // Number of faults, 4, where there is no second.
    expect([...likely.first].map((f, k) => [f, likely.second[k]])).toEqual([
      [0, 4],
      [2, 4],
      [0, 2],
      [1, 2],
      [2, 3],
    ]);
  });

  test('with nothing left out, mass and outcomes by the likely ones equal the whole', () => {
    const p = Float64Array.from([0.1, 0.05, 0.2, 0.05, 0.02, 0.3, 0.03, 0.1, 0.05, 0.1]);
    const likely = space.likely(p, 0);
    const digits = (list: Float64Array): string[] => [...list].map((v) => v.toFixed(12));
    expect(digits(likelyRowMass(likely, table))).toEqual(digits(space.rowMass(p, table)));
    const given = Float64Array.from([0.2, 0.7]);
    const whole = p.slice();
    space.update(whole, table, given);
    const after = [...likelyRows(likely, table)].map((row, k) => likely.p[k] * given[row]);
    const total = after.reduce((s, v) => s + v, 0);
    expect(after.map((v) => (v / total).toFixed(12))).toEqual([...whole].map((v) => v.toFixed(12)));
  });

  test('the bench’s own shares of double faults and of bad new parts count', () => {
    const board = demoBoard('heronlog-4-c');
    const pairs = (p: Float64Array): number => p.slice(4).reduce((s, v) => s + v, 0);
    expect(pairs(space.prior(board, [], { doubleShare: 0 }).p)).toBe(0);
    expect(pairs(space.prior(board, [], { doubleShare: 0.4 }).p)).toBeCloseTo(0.4, 9);
    const fresh = each([...faults, { ...fault('c/new', 'U2', 2), fitting: 1, rate: 0.02 }]);
    const bad = (deadOnArrival: number): number => fresh.marginal(fresh.prior(board, [], { deadOnArrival }).p, even)[4];
    expect(bad(0)).toBe(0);
    expect(bad(0.1)).toBeGreaterThan(3 * bad(0.02));
  });

  test('mass by row and marginals agree with adding up', () => {
    const p = Float64Array.from([0.1, 0.05, 0.2, 0.05, 0, 0.3, 0, 0.2, 0, 0.1]);
    expect([...space.rowMass(p, table)].map((v) => v.toFixed(10))).toEqual(['0.2000000000', '0.8000000000']);
    expect([...space.marginal(p, even.subarray(0, 4))].map((v) => v.toFixed(10))).toEqual([
      '0.4000000000',
      '0.2500000000',
      '0.8000000000',
      '0.1500000000',
    ]);
  });
});

describe('new parts', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));

  test('bring along faults of their own, with the rate of parts that are bad out of the packet', () => {
    const { faults: all, marginal } = updateBelief(predictor, [], [], {}, ['U4']);
    const chance = (counts: (id: string) => boolean): number =>
      all.reduce((s, f, i) => (f.fitting !== undefined && counts(f.id) ? s + marginal[i] : s), 0);
    const soldered = /(joint|bridge|moved|type|reversed)/;
    const fresh = chance((id) => !soldered.test(id));
    expect(
      all.filter((f) => f.fitting !== undefined).every((f) => f.ref === 'U4' && f.label.startsWith('New U4')),
    ).toBe(true);
    expect(fresh).toBeGreaterThan(0.015);
    expect(fresh).toBeLessThan(0.025);
    // 0.2 % for each joint of a leadless part that is missed, 0.1 % for each two that may join (stated estimates).
    expect(chance((id) => id.includes('/joint/'))).toBeGreaterThan(0.01);
    expect(chance((id) => soldered.test(id))).toBeLessThan(0.08);
  });

  test('a case is made once for the same new parts, in any order', () => {
    expect(FaultCase.of(predictor, ['U4', 'C14'])).toBe(FaultCase.of(predictor, ['C14', 'U4']));
    expect(FaultCase.of(predictor, ['U4', 'U4'])).not.toBe(FaultCase.of(predictor, ['U4']));
    expect(FaultCase.of(predictor, ['U9/image'])).toBe(FaultCase.of(predictor, []));
  });
});

test('the bench’s own factors and records shift the prior as they say', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));
  const chance = (
    practice: Parameters<typeof updateBelief>[3],
    history: Parameters<typeof updateBelief>[2] = [],
  ): number => {
    const { faults: all, marginal } = updateBelief(predictor, [], history, practice);
    return all.reduce((s, f, i) => (f.ref === 'F1' ? s + marginal[i] : s), 0);
  };
  expect(chance({ records: { fuse: 3 } })).toBeGreaterThan(chance({}) * 2);
  expect(chance({ factors: { unknownCharger: { fuse: 10 } } }, ['unknownCharger'])).toBeGreaterThan(
    chance({}, ['unknownCharger']) * 2,
  );
  expect(chance({ factors: { unknownCharger: { fuse: 10 } } })).toBeCloseTo(chance({}), 12);
});

test('the story of an earlier repair brings bridges, lifted pads and screws; a bend brings cracked traces', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));
  const chance = (history: Parameters<typeof updateBelief>[2], mode: RegExp): number => {
    const { faults: all, marginal } = updateBelief(predictor, [], history);
    return all.reduce((s, f, i) => (mode.test(f.id) ? s + marginal[i] : s), 0);
  };
  for (const mode of [/solder/, /\/pad\//, /through/])
    expect(chance(['earlierRepair'], mode)).toBeGreaterThan(3 * chance([], mode));
  expect(chance(['bend'], /crack/)).toBeGreaterThan(3 * chance([], /crack/));
});

test('pairs are listed by parts, likeliest first', () => {
  const pairs = suspectPairs(updateBelief(Predictor.of(demoBoard('heronlog-4-c')), [], []), undefined, 5);
  expect(pairs).toHaveLength(5);
  expect(pairs.map((p) => p.p)).toEqual([...pairs.map((p) => p.p)].sort((a, b) => b - a));
  for (const { refs } of pairs) expect(refs[0]).not.toBe(refs[1]);
});

describe('over every single and pair of a demo board', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));
  const readings: Reading[] = [
    { measurement: { kind: 'groundResistance', net: 'AON33' }, value: { kind: 'figure', value: 1.6 } },
    { measurement: { kind: 'diodeDrop', net: 'VSYS' }, value: { kind: 'figure', value: 0.41 } },
    { measurement: { kind: 'railVoltage', rail: 'VBUS' }, value: { kind: 'figure', value: 5.02 } },
    { measurement: { kind: 'diodeDrop', net: 'VBUS_F' }, value: { kind: 'figure', value: 0.62 } },
  ];
  const { space, evidence, prior } = updateBelief(predictor, readings, []);

  test('all readings at once come to the same as one after the other', () => {
    const [one, all] = [prior().slice(), prior().slice()];
    const log = evidence.reduce((sum, e) => sum + Math.log(space.update(one, e.table, e.likelihood)), 0);
    expect(space.updateAll(all, evidence)).toBeCloseTo(log, 9);
    expect(Math.max(...all.map((v, h) => Math.abs(v - one[h])))).toBeLessThan(1e-12);
  });

  test('mass by row without some faults is that of the hypotheses without them', () => {
    const isSome = Uint8Array.from([...space.faults.map((f) => Number(f.ref === 'U4')), 0]);
    const without = prior().slice();
    space.forEach((h, i, j) => {
      if (isSome[i] || (j >= 0 && isSome[j])) without[h] = 0;
    });
    for (const { table } of evidence) {
      const mass = space.rowMassWithout(space.rowMass(prior(), table), prior(), table, isSome);
      const plain = space.rowMass(without, table);
      expect(Math.max(...mass.map((v, row) => Math.abs(v - plain[row])))).toBeLessThan(1e-12);
    }
  });

  test('each test’s mass by row, gathered once for all that share a partition, is that of the whole', () => {
    const likely = space.likely(prior(), 0);
    for (const m of predictor.tests) {
      const table = FaultCase.of(predictor, []).table(m, new Set(), []);
      const [gathered, plain] = [likelyRowMass(likely, table), space.rowMass(prior(), table)];
      expect(Math.max(...gathered.map((v, row) => Math.abs(v - plain[row])))).toBeLessThan(1e-12);
    }
  });
});
