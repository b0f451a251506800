import { demoBoard } from '../../../demo/files';
import { groundNet } from '../board';
import { statsOf } from '../reference';
import { behindPin, expectedDrop, judgePin, type PinValue } from './judge';
import { nextPin, portPins } from './pins';

const board = demoBoard('heronlog-4-c');
const pins = portPins(board, 'J1');
const pin = (name: string) => pins.find((p) => p.pin === name)!;
const volts = (value: number): PinValue => ({ kind: 'figure', value });
const OPEN: PinValue = { kind: 'open' };

describe('the connector', () => {
  // USB Type-C specification, receptacle pin assignment: the plug may be turned, so contact n of one row takes the
  // place of contact n of the other, and both carry the same kind of signal.
  test('has 24 contacts, and a turned plug meets the same kinds of signal', () => {
    expect(pins).toHaveLength(24);
    const kind = (carries: string): string => carries.replace(/[12]/g, '');
    for (const p of pins) {
      expect(pin(p.twin).twin).toBe(p.pin);
      expect(kind(pin(p.twin).carries)).toBe(kind(p.carries));
    }
  });

  test('has four grounds, four bus contacts, two of each data line', () => {
    const count = (carries: string): number => pins.filter((p) => p.carries === carries).length;
    expect(['GND', 'VBUS', 'D+', 'D−', 'CC1', 'CC2', 'SBU1', 'SBU2'].map(count)).toEqual([4, 4, 2, 2, 1, 1, 1, 1]);
  });

  test('agrees with the nets of the demo board: grounds on ground, CC on CC', () => {
    for (const p of pins.filter((x) => x.carries === 'GND')) expect(p.net).toBe(groundNet(board));
    expect([pin('A5').net, pin('B5').net]).toEqual(['CC1', 'CC2']);
  });
});

describe('the walk', () => {
  test('names every contact once, row A first, and ends', () => {
    const read = new Set<string>();
    const order: string[] = [];
    for (let next = nextPin(pins, read); next; next = nextPin(pins, read, next.pin)) {
      order.push(next.pin);
      read.add(next.pin);
    }
    expect(order).toEqual(pins.map((p) => p.pin));
    expect(order.slice(0, 12).every((name) => name.startsWith('A'))).toBe(true);
  });

  test('comes back to a contact that was left out', () => {
    const read = new Set(pins.map((p) => p.pin).filter((name) => name !== 'A3'));
    expect(nextPin(pins, read, 'B12')!.pin).toBe('A3');
  });
});

describe('a contact is judged', () => {
  test.each<[string, PinValue, 'good' | 'bad', RegExp]>([
    ['A5', volts(0.262), 'good', /^normal$/],
    ['A5', volts(0.004), 'bad', /shorted to ground/],
    ['A5', volts(0.14), 'bad', /^low/],
    ['A5', volts(0.41), 'bad', /^high/],
    ['A5', volts(-0.61), 'bad', /wrong sign/],
    ['A5', OPEN, 'bad', /^open/],
    ['A1', volts(0.001), 'good', /^ground$/],
    ['A1', OPEN, 'bad', /does not reach ground/],
  ])('%s %j: %s', (name, value, state, words) => {
    const verdict = judgePin(board, pin(name), value);
    expect(verdict.state).toBe(state);
    expect(verdict.label).toMatch(words);
  });

  test('a contact that is left open by design is good when open, and suspicious when not', () => {
    const marsh = demoBoard('marshdesk-2-b');
    const unused = portPins(marsh, 'J1').find((p) => p.pin === 'A2')!;
    expect(judgePin(marsh, unused, OPEN)).toMatchObject({ state: 'good', label: 'open by design' });
    expect(judgePin(marsh, unused, volts(0.3)).state).toBe('bad');
  });

  // Common practice, no published source: twin pins are equal within a few millivolts.
  test('twins that differ by more than a few millivolts are called out, those that agree are not', () => {
    expect(judgePin(board, pin('A6'), volts(0.258), volts(0.255)).state).toBe('good');
    const apart = judgePin(board, pin('A6'), volts(0.272), volts(0.255));
    expect(apart).toMatchObject({ state: 'bad', label: 'its twin reads otherwise' });
    expect(apart.rests).toContain('twin B6: 0.255 V, 17 mV lower');
  });

  test('good boards narrow what counts as normal, and say how many they were', () => {
    const stats = statsOf([0.261, 0.262, 0.262, 0.263, 0.262]);
    expect(judgePin(board, pin('A5'), volts(0.245)).state).toBe('good');
    const verdict = judgePin(board, pin('A5'), volts(0.245), undefined, stats);
    expect(verdict.state).toBe('bad');
    expect(verdict.rests[0]).toMatch(/^5 good boards: 0\.2\d\d to 0\.2\d\d V$/);
    expect(expectedDrop(board, pin('A5'))!.label).toMatch(/^board file/);
  });

  test('one good board gives no interval: the board file still decides', () => {
    expect(expectedDrop(board, pin('A5'), statsOf([0.262]))!.label).toMatch(/^board file/);
  });
});

test('what stands behind a contact: the array beside it, the filter on the way, the chip at the end', () => {
  expect(behindPin(board, pin('A5'))).toEqual(expect.arrayContaining(['D1', 'U4']));
  expect(behindPin(board, pin('A6'))).toEqual(['FL1', 'U4', 'U5']);
  expect(behindPin(board, pin('A4'))).toEqual(expect.arrayContaining(['F1', 'D3', 'U4']));
  expect(behindPin(board, pin('A1'))).toEqual([]);
  expect(judgePin(board, pin('A6'), OPEN).behind).toEqual(['FL1', 'U4', 'U5']);
});
