import { anywhereShare } from './prediction';
import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { entropyBits } from '../math';
import { conditioned, updateBelief } from './belief';
import { FaultCase } from './case';
import { SOUND } from './faults';
import { interpretReading } from './measurement';
import { boardMeasurements, measurementId } from './measurement';
import type { Measurement } from './measurements/registry';
import type { Reading } from './reading';
import { testMinutes } from './measurement';
import { informationBits, outcomesOf, proposeTests } from './next';
import { idealReading } from './policy';
import { Predictor } from './predictor';
import { checkReading } from './measurement';
import { outlook, reasons } from './explain';

const NONE = new Set<string>();

describe.each(DEMO_BOARDS)('predictions on %s', (id) => {
  const predictor = Predictor.of(demoBoard(id));
  const { board, faults } = predictor;
  const tests = boardMeasurements(board);
  const tableOf = (m: Measurement) => FaultCase.of(predictor, []).table(m, NONE, NONE);

  test('every row of every test is a proper distribution', () => {
    for (const m of tests) {
      for (const prediction of tableOf(m).rows) {
        if (prediction.kind === 'verdict') {
          expect(prediction.failChance).toBeGreaterThanOrEqual(0);
          expect(prediction.failChance).toBeLessThanOrEqual(1);
          continue;
        }
        if (prediction.kind === 'choice') {
          expect(Object.values(prediction.chance).reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9);
          continue;
        }
        const broad = anywhereShare(prediction);
        expect(prediction.alternatives.reduce((s, a) => s + a.weight, broad)).toBeCloseTo(1, 9);
        for (const { means, sds } of prediction.alternatives) {
          expect(means.every(Number.isFinite)).toBe(true);
          expect(sds.every((s) => s > 0)).toBe(true);
        }
      }
    }
  });

  test('the classes of a test share out each row’s readings completely', () => {
    for (const m of tests) {
      const { classes, rows } = tableOf(m);
      rows.forEach((_, row) => expect(classes.reduce((s, c) => s + c.given[row], 0)).toBeCloseTo(1, 9));
    }
  });

  test('a sound board reads well everywhere', () => {
    for (const m of tests) {
      const { value } = idealReading(predictor, m, SOUND);
      // Ports that are not plugged in, and switches at rest, are the only places where a sound board reads "bad".
      if (
        m.kind === 'groundResistance' ||
        m.kind === 'diodeDrop' ||
        m.kind === 'visualInspection' ||
        m.kind === 'imageCheck'
      ) {
        expect([measurementId(m), interpretReading(predictor, m, value, NONE).state]).toEqual([
          measurementId(m),
          'good',
        ]);
      }
    }
  });

  test('a mended fault reads as a sound board, whatever it was', () => {
    for (const fault of faults.filter((f) => f.ref !== '')) {
      const m: Measurement = { kind: 'railVoltage', rail: board.rails[board.rails.length - 1].id };
      expect(predictor.predict(m, fault, NONE, new Set([fault.ref]))).toEqual(predictor.predict(m, SOUND, NONE, NONE));
      expect(predictor.predict(m, fault, NONE, new Set([fault.id]))).toEqual(predictor.predict(m, SOUND, NONE, NONE));
    }
  });
});

describe('information', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));
  const { board } = predictor;
  const start = updateBelief(predictor, [], []);

  test('without slips it is the mutual information of fault and outcome, by brute force', () => {
    for (const m of [
      { kind: 'usbMeter', port: 'J1', side: 'A' },
      { kind: 'groundResistance', net: 'AON33' },
      { kind: 'functionTest', fn: 'charge' },
    ] as const) {
      const whole = { ...start, likely: start.space.likely(start.p, 0) };
      const { outcomes, mass, table } = outcomesOf(whole, m, NONE, NONE);
      const before = entropyBits(start.p);
      const after = outcomes.reduce((sum, o) => sum + o.p * entropyBits(conditioned(start, table, o.given).p), 0);
      expect(informationBits(outcomes, mass, 0)).toBeCloseTo(before - after, 6);
      // What is as good as ruled out may be left out: it moves no choice.
      const likely = outcomesOf(start, m, NONE, NONE);
      expect(Math.abs(informationBits(likely.outcomes, likely.mass, 0) - (before - after))).toBeLessThan(2e-3);
    }
  });

  test('slips of the probe make every test say less', () => {
    const { outcomes, mass } = outcomesOf(start, { kind: 'groundResistance', net: 'AON33' }, NONE, NONE);
    const bits = [0, 0.03, 0.2, 0.6].map((rate) => informationBits(outcomes, mass, rate));
    expect(bits).toEqual([...bits].sort((a, b) => b - a));
  });

  test('a test that was taken is not proposed again until the board changes', () => {
    const m: Measurement = { kind: 'groundResistance', net: 'AON33' };
    const taken: Reading[] = [{ measurement: m, value: { kind: 'figure', value: 1.6 } }];
    const proposed = (absent: ReadonlySet<string>): string[] =>
      proposeTests(updateBelief(predictor, taken, []), { access: 'out', absent, replaced: [], taken }).map((t) =>
        measurementId(t.measurement),
      );
    expect(proposed(NONE)).not.toContain('ohm:AON33');
    expect(proposed(new Set(['U4']))).toContain('ohm:AON33');
    expect(proposed(NONE)).toContain('lift:U4:AON33');
  });

  test('opening costs its minutes once', () => {
    const m: Measurement = { kind: 'groundResistance', net: 'AON33' };
    const [closed, open, out] = (['closed', 'open', 'out'] as const).map((access) => testMinutes(board, m, access));
    expect(closed).toBeGreaterThan(open);
    expect(open).toBeGreaterThan(out);
    expect(testMinutes(board, { kind: 'usbMeter', port: 'J1', side: 'A' }, 'closed')).toBe(
      testMinutes(board, { kind: 'usbMeter', port: 'J1', side: 'A' }, 'out'),
    );
  });

  test('the outlook names what each likely outcome would say', () => {
    const m: Measurement = { kind: 'seriesResistance', ref: 'F1', line: '' };
    const lines = outlook(start, m, outcomesOf(start, m, NONE, NONE));
    expect(lines.some((l) => /^Open: then F1, (9\d|> 99) %\.$/.test(l))).toBe(true);
  });

  test('reasons name the readings that made a suspect, for and against', () => {
    const readings: Reading[] = [
      { measurement: { kind: 'seriesResistance', ref: 'F1', line: '' }, value: { kind: 'open' } },
      { measurement: { kind: 'visualInspection', ref: 'J1' }, value: { kind: 'pass' } },
    ];
    const belief = updateBelief(predictor, readings, []);
    expect(reasons(board, belief, readings, 'F1')[0]).toBe('Through F1 open: far likelier with F1 at fault.');
    expect(reasons(board, belief, readings, 'J1').some((r) => r.includes('less likely with J1 at fault'))).toBe(true);
  });
});

describe('readings from outside are checked against the board', () => {
  const board = demoBoard('heronlog-4-c');
  test.each<[Reading, string]>([
    [
      { measurement: { kind: 'usbMeter', port: 'J9', side: 'A' }, value: { kind: 'pair', volts: 5, amps: 0 } },
      'Expected one of the ports J1; got "J9".',
    ],
    [
      { measurement: { kind: 'functionTest', fn: 'flying' }, value: { kind: 'pass' } },
      'Expected one of charge, data, fast-data, logging, sensor-supply; got "flying".',
    ],
    [
      { measurement: { kind: 'seriesResistance', ref: 'F9', line: '' }, value: { kind: 'open' } },
      'Expected a part of this board; got "F9".',
    ],
    [
      { measurement: { kind: 'railVoltage', rail: 'V12' }, value: { kind: 'figure', value: 1 } },
      'Expected a rail of this board; got "V12".',
    ],
    [
      { measurement: { kind: 'visualInspection', ref: 'J1' }, value: { kind: 'figure', value: 1 } },
      'Expected pass or fail (look into the port); got figure.',
    ],
  ])('%j', (reading, words) => {
    const checked = checkReading(board, reading);
    expect(checked.ok ? '' : checked.problems[0].message).toBe(words);
  });
});

describe('what a reading means at its point', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));
  const mean = (m: Measurement, value: Reading['value']) => interpretReading(predictor, m, value, NONE);
  test.each<[string, Measurement, Reading['value'], 'good' | 'bad' | 'plain', RegExp]>([
    [
      'a short',
      { kind: 'groundResistance', net: 'AON33' },
      { kind: 'figure', value: 1.6 },
      'bad',
      /^a short, 6\.\d+ kΩ expected$/,
    ],
    ['low, no short', { kind: 'groundResistance', net: 'AON33' }, { kind: 'figure', value: 400 }, 'bad', /^low, /],
    [
      'too high',
      { kind: 'groundResistance', net: 'AON33' },
      { kind: 'open' },
      'bad',
      /^too high, .* a load or a path is missing$/,
    ],
    [
      'a beep where none belongs',
      { kind: 'groundResistance', net: 'AON33' },
      { kind: 'beep' },
      'bad',
      /^a short or close to it/,
    ],
    [
      'a beep on a rail that is low by nature',
      { kind: 'groundResistance', net: 'VCORE' },
      { kind: 'beep' },
      'plain',
      /^$/,
    ],
    [
      'a fuse that conducts',
      { kind: 'seriesResistance', ref: 'F1', line: '' },
      { kind: 'beep' },
      'good',
      /^it conducts$/,
    ],
    [
      'a fuse that does not',
      { kind: 'seriesResistance', ref: 'F1', line: '' },
      { kind: 'open' },
      'bad',
      /^open: it should conduct$/,
    ],
    [
      'bridged lines',
      { kind: 'seriesResistance', ref: 'FL1', line: 'ab' },
      { kind: 'figure', value: 1 },
      'bad',
      /^bridged/,
    ],
    [
      'a drop of the wrong sign',
      { kind: 'diodeDrop', net: 'CC1' },
      { kind: 'figure', value: -0.3 },
      'bad',
      /^wrong sign/,
    ],
    [
      'a drop shorted',
      { kind: 'diodeDrop', net: 'CC1' },
      { kind: 'figure', value: 0.01 },
      'bad',
      /^shorted to ground$/,
    ],
    [
      'a drop that is off',
      { kind: 'diodeDrop', net: 'CC1' },
      { kind: 'figure', value: 0.41 },
      'bad',
      /^off, 0\.262 V expected/,
    ],
    ['a drop that is normal', { kind: 'diodeDrop', net: 'CC1' }, { kind: 'figure', value: 0.27 }, 'good', /^normal/],
    ['an open drop', { kind: 'diodeDrop', net: 'CC1' }, { kind: 'open' }, 'bad', /^open: the way to the chip is cut/],
    [
      'a rail in its window',
      { kind: 'railVoltage', rail: 'V33' },
      { kind: 'figure', value: 3.31 },
      'good',
      /^in its window$/,
    ],
    [
      'a rail low',
      { kind: 'railVoltage', rail: 'V33' },
      { kind: 'figure', value: 2.9 },
      'bad',
      /^low, wanted 3\.1[34] V to 3\.4[67] V$/,
    ],
    ['a rail high', { kind: 'railVoltage', rail: 'V33' }, { kind: 'figure', value: 4.9 }, 'bad', /^high, /],
    ['a rail away', { kind: 'railVoltage', rail: 'V33' }, { kind: 'figure', value: 0.02 }, 'bad', /^next to nothing/],
  ])('%s', (_, m, value, state, words) => {
    const meaning = mean(m, value);
    expect(meaning.state).toBe(state);
    expect(meaning.message).toMatch(words);
  });
});
