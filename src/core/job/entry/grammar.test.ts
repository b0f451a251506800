import fc from 'fast-check';
import { demoBoard } from '../../../../demo/files';
import { problemText } from '../../result';
import { applyCompletion } from '../../command-line';
import { recordedBy } from '../tests/typed';
import type { EntryMode } from './context';
import { completeEntry, parseEntry } from './grammar';
import type { EventBody, JobEvent } from '../log';
import { foldJob } from '../log';

const heron = demoBoard('heronlog-4-c');
const marsh = demoBoard('marshdesk-2-b');

const event = (seq: number, body: EventBody): JobEvent => ({
  seq,
  at: '2026-11-24T08:00:00.000Z',
  bench: 'Bench 1',
  actor: 'Bench 2',
  body,
});
const empty = foldJob([]);

function body(text: string, mode: EntryMode = 'ohm', board = heron, state = empty): EventBody {
  const entry = parseEntry(board, state, text, mode);
  if (!entry.ok) throw new Error(problemText(entry.problems));
  return recordedBy(entry.value);
}
function problem(text: string, board = heron, state = empty): string {
  const entry = parseEntry(board, state, text, 'ohm');
  return entry.ok ? '' : problemText(entry.problems);
}

test.each<[string, unknown, unknown]>([
  ['c14 0.4 ohm', { kind: 'groundResistance', net: 'AON33' }, { kind: 'figure', value: 0.4 }],
  ['C14 0,4', { kind: 'groundResistance', net: 'AON33' }, { kind: 'figure', value: 0.4 }],
  ['tp7 1.8', { kind: 'groundResistance', net: 'AON33' }, { kind: 'figure', value: 1.8 }],
  ['tp7 6.6kohm', { kind: 'groundResistance', net: 'AON33' }, { kind: 'figure', value: 6600 }],
  ['tp3 ol', { kind: 'groundResistance', net: 'VSYS' }, { kind: 'open' }],
  ['c16 beep', { kind: 'groundResistance', net: 'PD18' }, { kind: 'beep' }],
  ['vbus 5.02', { kind: 'railVoltage', rail: 'VBUS' }, { kind: 'figure', value: 5.02 }],
  ['tp7 3.31v', { kind: 'railVoltage', rail: 'AON33' }, { kind: 'figure', value: 3.31 }],
  ['tp7 volt 3.31', { kind: 'railVoltage', rail: 'AON33' }, { kind: 'figure', value: 3.31 }],
  ['cc1 drop 0.262', { kind: 'diodeDrop', net: 'CC1' }, { kind: 'figure', value: 0.262 }],
  ['cc1 0.262 drop', { kind: 'diodeDrop', net: 'CC1' }, { kind: 'figure', value: 0.262 }],
  ['f1 0.0', { kind: 'seriesResistance', ref: 'F1', line: '' }, { kind: 'figure', value: 0 }],
  ['fl1 a 0.2', { kind: 'seriesResistance', ref: 'FL1', line: 'a' }, { kind: 'figure', value: 0.2 }],
  ['fl1 ab open', { kind: 'seriesResistance', ref: 'FL1', line: 'ab' }, { kind: 'open' }],
  ['q1 thru ol', { kind: 'seriesResistance', ref: 'Q1', line: '' }, { kind: 'open' }],
  ['usb a 14.8v 0.49', { kind: 'usbMeter', port: 'J1', side: 'A' }, { kind: 'pair', volts: 14.8, amps: 0.49 }],
  ['look j1 good', { kind: 'visualInspection', ref: 'J1' }, { kind: 'pass' }],
  ['try charge fails', { kind: 'functionTest', fn: 'charge' }, { kind: 'fail' }],
  [
    'look j1 bad pins corrosion',
    { kind: 'visualInspection', ref: 'J1' },
    { kind: 'fail', seen: ['pins', 'corrosion'] },
  ],
  ['a5 0.262', { kind: 'contactDrop', port: 'J1', pin: 'A5' }, { kind: 'figure', value: 0.262 }],
  ['a5 262m', { kind: 'contactDrop', port: 'J1', pin: 'A5' }, { kind: 'figure', value: 0.262 }],
  ['j1 b12 ol', { kind: 'contactDrop', port: 'J1', pin: 'B12' }, { kind: 'open' }],
  ['usb b swings', { kind: 'meterPattern', port: 'J1', side: 'B' }, { kind: 'choice', choice: 'swing' }],
  [
    'talk a unanswered',
    { kind: 'pdNegotiation', port: 'J1', side: 'A' },
    { kind: 'choice', choice: 'offersUnanswered' },
  ],
  ['tester fails', { kind: 'portTester', port: 'J1' }, { kind: 'fail' }],
  ['swap charger works', { kind: 'knownGoodSwap', port: 'J1', what: 'charger' }, { kind: 'pass' }],
  ['swap pack same', { kind: 'knownGoodSwap', port: 'J1', what: 'pack' }, { kind: 'fail' }],
  ['pack 3.85', { kind: 'railVoltage', rail: 'VPACK' }, { kind: 'figure', value: 3.85 }],
  ['check u9 bad', { kind: 'imageCheck', ref: 'U9' }, { kind: 'fail' }],
])('%p is a reading', (text, measurement, value) => {
  expect(body(text)).toEqual({ kind: 'reading', measurement, value });
});

test('while proving, a bare figure is volts', () => {
  expect(body('tp7 3.31', 'volt')).toMatchObject({ measurement: { kind: 'railVoltage', rail: 'AON33' } });
});

test('damage of the board and shields are entered by name, and only where there are any', () => {
  const { board, state } = { board: marsh, state: foldJob([]) };
  const said = (text: string): string => {
    const entry = parseEntry(board, state, text, 'ohm');
    return entry.ok ? entry.value.echo : entry.problems[0].message;
  };
  expect(said('shield sh1 off')).toBe('Shield SH1 is off.');
  expect(said('shield sh1 on')).toBe('SH1 is on already.');
  expect(said('shield sh9 off')).toMatch(/SH1; got "SH9"/);
  expect(said('shield sh1')).toMatch(/^Expected off or on/);
  expect(said('mended vin')).toBe('A wire is laid past the trace to VIN.');
  expect(said('mended s1')).toBe('The board is mended at screw S1.');
  expect(said('mended u4')).toMatch(/^Expected a rail or a screw/);
});

test('a board with several ports wants the port named', () => {
  expect(body('usb j2 b 20 0.9', 'ohm', marsh)).toMatchObject({ measurement: { port: 'J2', side: 'B' } });
  expect(problem('usb a 5 0', marsh)).toBe('Expected one of the ports J1, J2, J3 after "usb"; got "a".');
});

test('parts, pack, access and notes', () => {
  const off = foldJob([event(1, body('off u4'))]);
  expect(body('off u4')).toEqual({ kind: 'partOff', ref: 'U4' });
  expect(body('on u4 new', 'ohm', heron, off)).toEqual({ kind: 'partOn', ref: 'U4', fresh: true });
  expect(body('on u4 same', 'ohm', heron, off)).toEqual({ kind: 'partOn', ref: 'U4', fresh: false });
  expect(body('pack out')).toEqual({ kind: 'pack', state: 'out' });
  expect(body('out')).toEqual({ kind: 'access', access: 'out' });
  expect(body('note Corrosion under D1')).toEqual({ kind: 'note', text: 'Corrosion under D1' });
});

test.each([
  ['vbus 14.9v ripple 120m', { ripplePpV: 0.12 }, '14.90 V, ripple 0.12 V'],
  ['vbus 14.9 swings', { swings: true }, 'it comes and goes'],
  ['vbus 14.9 swings ripple 1.2v', { swings: true, ripplePpV: 1.2 }, 'it comes and goes, ripple 1.20 V'],
])('%j keeps what else was seen of a rail', (text, note, words) => {
  const entry = parseEntry(heron, empty, text, 'volt');
  expect(entry.ok && recordedBy(entry.value)).toMatchObject({ value: { kind: 'figure', value: 14.9, ...note } });
  expect(entry.ok && entry.value.echo).toContain(words);
});

test('a correction names what it corrects', () => {
  const state = foldJob([event(4, body('c14 0.4'))]);
  const entry = parseEntry(heron, state, 'fix c14 6.4k', 'ohm');
  expect(entry.ok && entry.value).toMatchObject({
    command: { replaces: 4 },
    echo: 'Corrects AON33 to ground from 0.40 Ω: C14 to ground, 6.40 kΩ',
  });
});

test.each([
  ['c14 abc', 'Expected a number such as 0.4, 4.7k or 4k7; got "abc".'],
  ['c14', 'Expected a value after the point: a number, ol, or beep.'],
  ['c14 1 2', 'Expected one value; got "1 2".'],
  ['tp99 1.2', 'Expected a test point, part or net of this board; got "tp99". Near it: TP1, TP2, TP3, TP4.'],
  ['usb c 5 0', 'Expected the plug’s way, a or b; got "c".'],
  ['usb a 14.8', 'Expected volts and amps, such as: usb a 14.8 0.49.'],
  ['usb a 999 0', 'Expected a port voltage from 0 to 60 V; got 999.'],
  ['usb a 5 x', 'Expected a number such as 0.4, 4.7k or 4k7; got "x".'],
  ['cc1 3.3v', 'J1.A5 is on CC1, which is not a rail: expected ohms or a drop there.'],
  ['look j1 maybe', 'Expected good or bad; got "maybe".'],
  ['try flying works', 'Expected charge, data, fast-data, logging or sensor-supply; got "flying".'],
  ['on u4 new', 'U4 is on the board; expected one that was taken off.'],
  ['off u99', 'Expected a part of this board after "off"; got "u99".'],
  ['pack away', 'Expected in, out, or the connector’s voltage after "pack"; got "away".'],
  ['fix c14 2', 'Expected a reading that was taken before; AON33 to ground has none yet.'],
  ['look j1 bad smell', 'Expected what was seen: pins, tongue, corrosion, liquid, shell, debris; got "smell".'],
  ['look j1 good pins', 'Expected "good" alone; got "pins" after it.'],
  ['a5 4.7k', 'Expected a drop from −3 to 3 V; got 4700. Millivolts are typed as 262m.'],
  ['a5 12 ohm', 'Expected a diode-mode drop at contact A5; got ohms.'],
  ['a13 0.2', 'Expected a test point, part or net of this board; got "a13". Near it: AON33, ADR.'],
  ['swap brain works', 'Expected charger, cable or pack after "swap"; got "brain".'],
  ['swap cable maybe', 'Expected works or same after "swap cable"; got "maybe".'],
  [
    'talk a loudly',
    'Expected silent, unanswered, unasked, refused, unready, contract, collapsed or noisy for where it stopped; got "loudly".',
  ],
  ['vbus 14.9 wobbles', 'Expected "ripple 120m" or "swings" after the volts; got "wobbles".'],
  ['vbus 14.9 ripple', 'Expected the ripple from peak to peak, such as 120m; got "".'],
  ['gnd 0', 'TP14 is ground itself: expected a point that is measured against it.'],
])('%p is answered with a sentence', (text, words) => {
  expect(problem(text)).toBe(words.replace('J1.A5', problem(text).split(' ')[0]));
});

test('contacts and testers of a board with several ports want the port named', () => {
  expect(body('j2 b7 0.25', 'ohm', marsh)).toMatchObject({
    measurement: { kind: 'contactDrop', port: 'J2', pin: 'B7' },
  });
  expect(body('swap j3 cable same', 'ohm', marsh)).toMatchObject({
    measurement: { kind: 'knownGoodSwap', port: 'J3' },
  });
  expect(problem('b7 0.25', marsh)).toBe('Expected the port before the contact, such as: j2 b7 0.262; got "b7 0.25".');
  expect(problem('tester pass', marsh)).toMatch(/^Expected one of the ports/);
});

test('any text gives an entry or a sentence, never a crash', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 40 }), (text) => {
      const entry = parseEntry(heron, empty, text, 'ohm');
      return entry.ok || /^[A-Z].*\.$/.test(entry.problems[0].message.replace(/\n/g, ' '));
    }),
    { numRuns: 2000, seed: 4 },
  );
});

test('completion', () => {
  expect(completeEntry(heron, empty, 'tp')).toEqual(['tp1', 'tp2', 'tp3', 'tp4', 'tp5', 'tp6']);
  expect(completeEntry(heron, empty, 'usb ')).toEqual(['a', 'b']);
  expect(completeEntry(marsh, empty, 'usb j2 ')).toEqual(['a', 'b']);
  expect(completeEntry(heron, empty, 'try cha')).toEqual(['charge']);
  expect(completeEntry(heron, empty, 'swap ')).toEqual(['pack', 'cable', 'charger']);
  expect(completeEntry(marsh, empty, 'swap j2 c')).toEqual(['cable', 'charger']);
  expect(completeEntry(heron, empty, 'look j1 bad cor')).toEqual(['corrosion']);
  expect(completeEntry(heron, empty, 'fix u1')).toContain('u10');
  expect(applyCompletion('try cha', 'charge')).toBe('try charge ');
});
