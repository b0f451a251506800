/** The order of the bench, what is asked first among equals, and when a job is stopped. */
import { demoBoard } from '../../../demo/files';
import { updateBelief } from './belief';
import { SOUND } from './faults';
import { accessFor, isOutsideTest, measurementId } from './measurement';
import { misfitOf } from './misfit';
import { standingOf } from './next-move';
import { inBenchOrder } from './order';
import { idealReading } from './policy';
import type { Reading } from './reading';
import { Predictor } from './predictor';
import { rankActions } from './step';

const predictor = Predictor.of(demoBoard('heronlog-4-c'));
const NONE: ReadonlySet<string> = new Set();
const ohm = (net: string, value: number): Reading => ({
  measurement: { kind: 'groundResistance', net },
  value: { kind: 'figure', value },
});
const usb = (side: 'A' | 'B', volts: number, amps: number): Reading => ({
  measurement: { kind: 'usbMeter', port: 'J1', side },
  value: { kind: 'pair', volts, amps },
});
const silent = [usb('A', 5.02, 0.06), usb('B', 5.02, 0.06)];
const at = (taken: readonly Reading[], access: 'closed' | 'out' = 'out') =>
  ({ access, absent: NONE, replaced: [], taken }) as const;

describe('the order of the bench', () => {
  test('the board stays in until the port was read both ways', () => {
    const first = rankActions(updateBelief(predictor, [], []), at([], 'closed'));
    for (const { measurement: m } of first.tests) expect(isOutsideTest(m) || accessFor(m) === 'closed').toBe(true);
    const then = rankActions(updateBelief(predictor, silent, []), at(silent, 'closed'));
    expect(then.tests.some(({ measurement: m }) => accessFor(m) === 'out')).toBe(true);
  });

  test('no voltage of a rail before its short is excluded, by a reading or because it is hardly likely', () => {
    const volts = { measurement: { kind: 'railVoltage', rail: 'AON33' } } as const;
    const allowed = (readings: readonly Reading[]): boolean =>
      inBenchOrder(updateBelief(predictor, readings, []), at(readings))(volts);
    expect(allowed(silent)).toBe(false);
    expect(allowed([...silent, ohm('AON33', 6600)])).toBe(true);
  });

  test('a bench without an ohmmeter is not kept from measuring volts', () => {
    const context = { ...at(silent), practice: { without: ['groundResistance' as const] } };
    const volts = { measurement: { kind: 'railVoltage', rail: 'AON33' } } as const;
    expect(inBenchOrder(updateBelief(predictor, silent, []), context)(volts)).toBe(true);
  });

  test('among equals the nearest point comes first', () => {
    const readings = [...silent, ohm('AON33', 6600)];
    const belief = updateBelief(predictor, readings, []);
    const near = (xMm: number, yMm: number): string =>
      measurementId(rankActions(belief, { ...at(readings), near: { xMm, yMm } }).tests[0].measurement);
    const places = new Set([near(5, 20), near(55, 20), near(30, 40)]);
    expect(places.size).toBeGreaterThanOrEqual(1);
    const first = rankActions(belief, at(readings)).tests[0];
    for (const [x, y] of [
      [5, 20],
      [55, 5],
    ]) {
      const [own] = rankActions(belief, { ...at(readings), near: { xMm: x, yMm: y } }).tests;
      expect(own.expectedMinutes! - first.expectedMinutes!).toBeLessThan(0.4);
    }
  });
});

describe('what is done next', () => {
  const standing = (readings: readonly Reading[], more: object = {}) => {
    const context = { ...at(readings), ...more };
    const belief = updateBelief(predictor, readings, []);
    return standingOf(belief, readings, rankActions(belief, context), context);
  };

  test('work that rests on one quick reading waits for a second one', () => {
    const readings = [...silent, ohm('AON33', 6600), ohm('PD18', 9000)];
    const open: Reading = { measurement: { kind: 'seriesResistance', ref: 'F1', line: '' }, value: { kind: 'open' } };
    const { move } = standing([usb('A', 0, 0), usb('B', 0, 0), ...readings.slice(2), open]);
    if (move.kind === 'again') expect(move.reading).toBe(4);
    else expect(move.kind).toBe('test');
    const twice = standing([usb('A', 0, 0), usb('B', 0, 0), ...readings.slice(2), open, { ...open }]);
    expect(twice.move.kind).not.toBe('again');
  });

  test('a device that is worth next to nothing is not worked on', () => {
    expect(standing([...silent, ohm('AON33', 1.6), ohm('PD18', 1.6)], { worth: 5 }).move).toEqual({
      kind: 'stop',
      reason: 'tooDear',
    });
    expect(standing([...silent, ohm('AON33', 1.6), ohm('PD18', 1.6)], { worth: 500 }).move.kind).not.toBe('stop');
  });

  test('after two failed proofs an unlisted lead stops the job; before that it is narrowed down', () => {
    const sound = ['VIN', 'VSYS', 'AON33'].map((net) => idealReading(predictor, ohm(net, 0).measurement, SOUND));
    const odd = [ohm('CHG5', 14), ohm('CHG5', 14.5), ...sound];
    const first = standing(odd);
    expect(first.noneListed).toBe(true);
    expect(first.move.kind).toBe('test');
    expect(first.unlistedAt[0].net).toBe('CHG5');
    expect(standing(odd, { failedProofs: 2 }).move).toEqual({ kind: 'stop', reason: 'unlisted' });
  });
});

describe('misfit', () => {
  const misfit = (readings: readonly Reading[]): number => misfitOf(updateBelief(predictor, readings, []), readings)!.p;

  test('is no less than one in a hundred for readings that a listed fault gives, next to none for odd ones', () => {
    expect(misfit([...silent, ohm('AON33', 1.6), ohm('PD18', 9000)])).toBeGreaterThan(0.01);
    expect(misfit([ohm('VIN', 37), ohm('V5', 41), ohm('CHG5', 36), ohm('V33', 38)])).toBeLessThan(0.01);
    expect(misfitOf(updateBelief(predictor, [], []), [])).toBeUndefined();
  });

  test('names the reading that fits worst', () => {
    const readings = [...silent, ohm('AON33', 1.6), ohm('V5', 41)];
    const found = misfitOf(updateBelief(predictor, readings, []), readings)!;
    expect(found.worst).toBe(3);
    expect(found.worstP).toBeLessThan(0.1);
  });
});
