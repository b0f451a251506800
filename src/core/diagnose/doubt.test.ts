import { demoBoard } from '../../../demo/files';
import { conditioned, glimpsed, suspects, updateBelief } from './belief';
import { SURPRISING_BELOW, expectedShare, rankingFlips } from './doubt';
import type { Reading } from './reading';
import { outcomesOf, proposeTests } from './next';
import { SOUND } from './faults';
import { Predictor } from './predictor';
import { rankRepairs, targetName } from './repairs';
import { suspectPairs } from './suspect-pairs';
import { likelyRows } from './likely';

const predictor = Predictor.of(demoBoard('heronlog-4-c'));
const NONE = new Set<string>();
const usb = (side: 'A' | 'B', volts: number, amps: number): Reading => ({
  measurement: { kind: 'usbMeter', port: 'J1', side },
  value: { kind: 'pair', volts, amps },
});
const ohm = (net: string, value: number): Reading => ({
  measurement: { kind: 'groundResistance', net },
  value: { kind: 'figure', value },
});
const share = (readings: readonly Reading[]): number =>
  expectedShare(
    updateBelief(predictor, readings.slice(0, -1), []),
    updateBelief(predictor, readings, []),
    readings.length - 1,
  );

describe('a surprising reading', () => {
  test('is one that the belief before it hardly expected: it is taken twice', () => {
    const silent = [usb('A', 5.02, 0.06), usb('B', 5.02, 0.06)];
    expect(share([...silent, ohm('AON33', 1.6)])).toBeGreaterThan(0.3);
    expect(share([...silent, ohm('VCORE', 1.2)])).toBeLessThan(SURPRISING_BELOW);
  });

  test('is no longer one when it comes the same a second time', () => {
    const first = [usb('A', 5.02, 0.06), usb('B', 5.02, 0.06), ohm('VCORE', 1.2)];
    expect(share([...first, ohm('VCORE', 1.25)])).toBeGreaterThan(0.5);
  });
});

test('what would change the mind: an outcome of a good test after which another part leads', () => {
  const readings = [usb('A', 5.02, 0.06), usb('B', 5.02, 0.06)];
  const belief = updateBelief(predictor, readings, []);
  const tests = proposeTests(belief, { access: 'out', absent: NONE, replaced: [], taken: readings }).slice(0, 6);
  const turns = rankingFlips(belief, tests, NONE, []);
  expect(suspects(belief)[0].ref).toBe('U4');
  expect(turns.length).toBeGreaterThan(0);
  expect(turns.every((t) => !t.summary.includes('then U4'))).toBe(true);
  // The glimpse of an outcome is what counting it whole gives.
  for (const { measurement } of tests.slice(0, 3)) {
    const { table, outcomes } = outcomesOf(belief, measurement, NONE, []);
    const rows = likelyRows(belief.likely, table);
    for (const { given } of outcomes.filter((o) => o.p > 0.02)) {
      const [quick, whole] = [glimpsed(belief, rows, given), conditioned(belief, table, given)];
      quick.marginal.forEach((p, f) => expect(Math.abs(p - whole.marginal[f])).toBeLessThan(2e-3));
    }
  }
  expect(turns.map((t) => t.chance)).toEqual([...turns.map((t) => t.chance)].sort((a, b) => b - a));
});

describe('two faults at once', () => {
  // A trap of the trade: filter and mux. The filter is open, and the function still fails once it conducts again.
  const readings: Reading[] = [
    { measurement: { kind: 'visualInspection', ref: 'J1' }, value: { kind: 'pass' } },
    usb('A', 15, 0.6),
    usb('B', 15, 0.6),
    { measurement: { kind: 'functionTest', fn: 'data' }, value: { kind: 'fail' } },
    { measurement: { kind: 'functionTest', fn: 'fast-data' }, value: { kind: 'fail' } },
    // It fails a second time: no slip.
    { measurement: { kind: 'functionTest', fn: 'fast-data' }, value: { kind: 'fail' } },
    { measurement: { kind: 'functionTest', fn: 'logging' }, value: { kind: 'pass' } },
    { measurement: { kind: 'seriesResistance', ref: 'FL1', line: 'a' }, value: { kind: 'open' } },
    { measurement: { kind: 'seriesResistance', ref: 'FL2', line: 'a' }, value: { kind: 'figure', value: 0.2 } },
    { measurement: { kind: 'seriesResistance', ref: 'FL2', line: 'b' }, value: { kind: 'figure', value: 0.2 } },
    { measurement: { kind: 'seriesResistance', ref: 'FL3', line: 'a' }, value: { kind: 'figure', value: 0.2 } },
    { measurement: { kind: 'seriesResistance', ref: 'FL3', line: 'b' }, value: { kind: 'figure', value: 0.2 } },
  ];

  test('an open filter line does not explain the failing fast data: filter and mux together lead', () => {
    const [pair] = suspectPairs(updateBelief(predictor, readings, []));
    expect([...pair.refs].sort()).toEqual(['FL1', 'U5']);
    const [first, second] = suspects(updateBelief(predictor, readings, []));
    expect([first.ref, second.ref].sort()).toEqual(['FL1', 'U5']);
    // One open reading may be a probe without contact: no more than about even.
    expect(first.p).toBeGreaterThan(0.4);
  });

  test('the repair of both is named, and cures more than either', () => {
    const repairs = rankRepairs(updateBelief(predictor, readings, []), 'out', NONE);
    const both = repairs.find((r) => r.targets.length === 2)!;
    expect(both.targets.map(targetName).sort()).toEqual(['FL1', 'U5']);
    for (const single of repairs.filter((r) => r.targets.length === 1))
      expect(both.cureChance).toBeGreaterThan(single.cureChance);
  });

  test('after the filter is replaced and the function still fails, the mux leads', () => {
    const after: Reading[] = [
      { measurement: { kind: 'functionTest', fn: 'data' }, value: { kind: 'fail' }, replaced: ['FL1'] },
      {
        measurement: { kind: 'seriesResistance', ref: 'FL1', line: 'a' },
        value: { kind: 'figure', value: 0.2 },
        replaced: ['FL1'],
      },
    ];
    const belief = updateBelief(predictor, [...readings, ...after], [], {}, ['FL1']);
    const open = suspects(belief).filter((s) => s.ref !== 'FL1');
    expect(open[0].ref).toBe('U5');
    expect(open[0].p).toBeGreaterThan(0.7);
  });
});

test('a bad new part: the short is back with the new one on, twice, so the new one is the suspect', () => {
  // What a sound board reads there without U4: its own load is gone with it.
  const off = predictor.predict({ kind: 'groundResistance', net: 'AON33' }, SOUND, new Set(['U4']), NONE);
  const without = ohm('AON33', off.kind === 'values' ? 10 ** off.alternatives[0].means[0] : 0);
  const readings: Reading[] = [
    ohm('AON33', 1.6),
    { ...without, absent: ['U4'] },
    { ...ohm('AON33', 1.5), replaced: ['U4'] },
    { ...ohm('AON33', 1.6), replaced: ['U4'] },
  ];
  const belief = updateBelief(predictor, readings, [], {}, ['U4']);
  const fresh = belief.faults.reduce((sum, f, i) => sum + (f.fitting !== undefined ? belief.marginal[i] : 0), 0);
  expect(fresh).toBeGreaterThan(0.5);
  // Solder between two of its joints is as likely as a bad chip, and quicker mended; the chip comes after it.
  const targets = rankRepairs(belief, 'out', new Set(['U4'])).map((r) => r.targets);
  expect(targets.slice(0, 2)).toEqual([[{ kind: 'joints', ref: 'U4', fitting: 1 }], [{ kind: 'part', ref: 'U4' }]]);
});
