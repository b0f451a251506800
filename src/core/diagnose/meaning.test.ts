import { demoBoard } from '../../../demo/files';
import { statsOf } from '../reference';
import { interpretReading } from './measurement';
import { Predictor } from './predictor';

const predictor = Predictor.of(demoBoard('heronlog-4-c'));
const NONE = new Set<string>();
const ohm = (net: string, value: number, references = {}, absent = NONE) =>
  interpretReading(predictor, { kind: 'groundResistance', net }, { kind: 'figure', value }, absent, references);

describe('a resistance against good boards', () => {
  const references = { 'ohm:AON33': statsOf([6500, 6700, 6600, 6400, 6800]), 'ohm:VCORE': statsOf([48, 52, 50]) };

  test('within their interval is normal, and says how many they were', () => {
    expect(ohm('AON33', 6550, references)).toEqual({ message: 'as 5 good boards read', state: 'good' });
  });

  test('outside it is not, though the board file alone would let it pass', () => {
    expect(ohm('AON33', 4200).state).toBe('good');
    expect(ohm('AON33', 4200, references)).toMatchObject({
      state: 'bad',
      message: expect.stringMatching(/^not as 5 good boards: 6\.\d+ kΩ to 7\.\d+ kΩ$/),
    });
  });

  test('a plain short keeps its own words', () => {
    expect(ohm('AON33', 1.6, references).message).toMatch(/^a short/);
  });

  // Common practice: a processor rail is low by nature; a beep threshold alone misleads, a known-good board does not.
  test('a rail that is low by nature is judged by good boards, not by a threshold', () => {
    expect(ohm('VCORE', 50, references).state).toBe('good');
    expect(ohm('VCORE', 120, references).state).toBe('bad');
  });

  test('with a part off the board the references do not speak of it', () => {
    const off = new Set(['U4']);
    expect(ohm('AON33', 6550, references, off).message).not.toContain('good boards');
  });

  test('one good board gives no interval', () => {
    expect(ohm('AON33', 6550, { 'ohm:AON33': statsOf([6600]) }).message).toMatch(/^normal/);
  });
});

test('voltages and drops likewise', () => {
  const references = { 'volts:AON33': statsOf([3.3, 3.31, 3.29]), 'drop:CC1': statsOf([0.262, 0.263, 0.261]) };
  const read = (m: Parameters<typeof interpretReading>[1], value: number) =>
    interpretReading(predictor, m, { kind: 'figure', value }, NONE, references);
  expect(read({ kind: 'railVoltage', rail: 'AON33' }, 3.3).message).toBe('as 3 good boards read');
  expect(read({ kind: 'railVoltage', rail: 'AON33' }, 3.2)).toMatchObject({ state: 'bad' });
  expect(read({ kind: 'diodeDrop', net: 'CC1' }, 0.28)).toMatchObject({ state: 'bad' });
});

test('a rail that comes and goes is not as good boards, whatever it reads while it is there', () => {
  const references = { 'volts:AON33': statsOf([3.3, 3.31, 3.29]) };
  const m = { kind: 'railVoltage', rail: 'AON33' } as const;
  const read = (note: { swings?: boolean; ripplePpV?: number }) =>
    interpretReading(predictor, m, { kind: 'figure', value: 3.3, ...note }, NONE, references);
  expect(read({ swings: true })).toMatchObject({ state: 'bad', message: expect.stringMatching(/^it comes and goes/) });
  expect(read({ ripplePpV: 0.6 })).toMatchObject({ state: 'bad', message: expect.stringMatching(/^its ripple/) });
  expect(read({ ripplePpV: 0.02 })).toMatchObject({ state: 'good' });
});
