/** Facts of the trade on the demo boards: common practice, no published source. */
import { demoBoard } from '../../../demo/files';
import { suspects, updateBelief } from './belief';
import { SOUND } from './faults';
import { interpretReading } from './measurement';
import type { Reading } from './reading';
import { readMeter } from './meter';
import { idealReading } from './policy';
import { solvePower } from './power';
import { Predictor } from './predictor';
import { singleFaults } from './faults/catalogue';
import type { Fault } from './faults';

const heron = Predictor.of(demoBoard('heronlog-4-c'));
const marsh = Predictor.of(demoBoard('marshdesk-2-b'));
const NONE = new Set<string>();
const fault = (predictor: Predictor, id: string): Fault => {
  const found = singleFaults(predictor.board).find((f) => f.id === id);
  if (!found) throw new Error(`no fault ${id}`);
  return found;
};
const meter = (predictor: Predictor, id: string, port: string, side: 'A' | 'B') =>
  solvePower(predictor.board, fault(predictor, id).effects, NONE, { port, side, pack: 'in' }).meter;

test('a sound 15 V instrument draws 0.4 to 0.8 A at 15 V, either way round', () => {
  for (const side of ['A', 'B'] as const) {
    const reading = idealReading(heron, { kind: 'usbMeter', port: 'J1', side }, SOUND);
    expect(reading.value).toMatchObject({ volts: 15 });
    expect(reading.value.kind === 'pair' && reading.value.amps).toBeGreaterThanOrEqual(0.4);
    expect(reading.value.kind === 'pair' && reading.value.amps).toBeLessThanOrEqual(0.8);
  }
});

test('5 V and next to no current: no conversation; the controller, its image or its supply', () => {
  expect(readMeter(heron.board, 'J1', 5.02, 0.01)).toBe('noTalk');
  for (const id of ['U4/dead', 'U9/image']) expect(meter(heron, id, 'J1', 'A')).toBe('noTalk');
});

test('full level one way round only: one CC side', () => {
  for (const id of ['D1/short/CC1', 'U4/side-A', 'J1/pin/CC1']) {
    expect(meter(heron, id, 'J1', 'A')).not.toBe('healthy');
    expect(meter(heron, id, 'J1', 'B')).toBe('healthy');
  }
});

test('several shorted capacitors round one chip: that chip; one alone: its chip or the capacitor', () => {
  const short = (net: string, ohm: number): Reading => ({
    measurement: { kind: 'groundResistance', net },
    value: { kind: 'figure', value: ohm },
  });
  const [first] = suspects(updateBelief(heron, [short('AON33', 1.6), short('PD18', 1.7)], []));
  expect(first.ref).toBe('U4');
  expect(first.p).toBeGreaterThan(0.9);
  const single = suspects(updateBelief(heron, [short('AON33', 1.6)], []));
  const chance = (ref: string): number => single.find((s) => s.ref === ref)!.p;
  expect(chance('U4')).toBeLessThan(0.9);
  expect(chance('C14')).toBeGreaterThan(0.03);
});

test('an open fuse leaves the controller unfed', () => {
  expect(meter(heron, 'F1/open', 'J1', 'A')).toBe('noTalkUnfed');
});

test('full level and no current with the pack out is normal', () => {
  const { meter: seen } = solvePower(heron.board, [], NONE, { port: 'J1', side: 'A', pack: 'out' });
  expect(seen).toBe('noCharge');
});

test('a shared image that is damaged silences all three ports', () => {
  for (const port of ['J1', 'J2', 'J3']) expect(meter(marsh, 'U19/image', port, 'A')).toBe('noTalk');
});

test('a healthy pack connector reads 3.7 to 4.0 V with the pack out; about half a volt does not pass', () => {
  const reading = idealReading(heron, { kind: 'railVoltage', rail: 'VPACK' }, SOUND);
  const volts = reading.value.kind === 'figure' ? reading.value.value : 0;
  expect(volts).toBeGreaterThan(3.7);
  expect(volts).toBeLessThan(4.0);
  expect(interpretReading(heron, reading.measurement, { kind: 'figure', value: 0.5 }, NONE).state).toBe('bad');
});

test('diode drops of healthy port pins lie at 0.25 to 0.28 V, twin pins equal', () => {
  const drop = (net: string): number => {
    const { value } = idealReading(heron, { kind: 'diodeDrop', net }, SOUND);
    return value.kind === 'figure' ? value.value : NaN;
  };
  for (const net of ['CC1', 'CC2', 'DP_C', 'DN_C', 'SBU1', 'SBU2']) {
    expect(drop(net)).toBeGreaterThanOrEqual(0.25);
    expect(drop(net)).toBeLessThanOrEqual(0.28);
  }
  expect(Math.abs(drop('CC1') - drop('CC2'))).toBeLessThan(0.005);
});

test('a processor rail is low by nature: hundreds of ohms are no short', () => {
  const m = { kind: 'groundResistance', net: 'VCORE' } as const;
  const normal = idealReading(heron, m, SOUND).value;
  expect(normal.kind === 'figure' && normal.value).toBeLessThan(2000);
  expect(interpretReading(heron, m, normal, NONE)).toEqual({ message: 'low by nature here, normal', state: 'good' });
  expect(interpretReading(heron, m, { kind: 'figure', value: 1.2 }, NONE).state).toBe('bad');
});

test('a culprit takes its short with it; a short that stays is another part’s', () => {
  const m = { kind: 'groundResistance', net: 'AON33' } as const;
  const off = new Set(['U4']);
  const gone = heron.predict(m, fault(heron, 'U4/short/AON33'), off, NONE);
  const stays = heron.predict(m, fault(heron, 'C14/short/AON33'), off, NONE);
  expect(gone.kind === 'values' && 10 ** gone.alternatives[0].means[0]).toBeGreaterThan(1000);
  expect(stays.kind === 'values' && 10 ** stays.alternatives[0].means[0]).toBeLessThan(5);
});

test('a two-line filter: through each line, nothing between them', () => {
  const through = (line: 'a' | 'ab'): string => {
    const m = { kind: 'seriesResistance', ref: 'FL1', line } as const;
    return interpretReading(heron, m, idealReading(heron, m, SOUND).value, NONE).message;
  };
  expect(through('a')).toBe('it conducts');
  expect(through('ab')).toBe('normal');
});
