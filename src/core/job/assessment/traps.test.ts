/**
 * The traps of the trade, each from the first reading to the conclusion. Source of the traps: common practice, no published
 * source; the figures are those of the demo boards.
 */
import { demoBoard } from '../../../../demo/files';
import { Predictor, SOUND } from '../../diagnose';
import { BenchPlay } from '../tests/bench-play';

const heron = demoBoard('heronlog-4-c');
const marsh = demoBoard('marshdesk-2-b');
const NONE = new Set<string>();

/** What a sound board reads at a net, with some parts off, as the meter would show it. */
function soundOhm(net: string, ...off: string[]): string {
  const prediction = Predictor.of(heron).predict({ kind: 'groundResistance', net }, SOUND, new Set(off), NONE);
  const log = prediction.kind === 'values' ? prediction.alternatives[0].means[0] : 0;
  return log >= 6 ? 'ol' : `${(10 ** log).toFixed(0)} ohm`;
}

describe('no short anywhere, and yet the controller is dead', () => {
  const bench = new BenchPlay(heron, { history: ['unknownCharger'] }).type(
    'look j1 good',
    'usb a 5.02 0.01',
    'usb b 5.02 0.01',
    'swap charger same',
    'swap cable same',
    'pack out',
    'out',
    `tp7 ${soundOhm('AON33')}`,
    `c16 ${soundOhm('PD18')}`,
    `c4 ${soundOhm('VIN')}`,
  );

  test('measuring no short does not clear it: it still leads', () => {
    expect(bench.view.suspects[0].ref).toBe('U4');
    expect(bench.view.suspects[0].label).not.toContain('short');
  });

  test('its own regulator is there, its second supply is not: controller or image, nothing else', () => {
    bench.type('vbus_f 5.02 v', 'tp7 3.31 v', 'pd18 0.01 v');
    const [first, second] = bench.view.suspects;
    expect([first.ref, second.ref].sort()).toEqual(['U4', 'U9']);
  });

  test('a sound image leaves the controller', () => {
    bench.type('check u9 good');
    expect(bench.chance('U4')).toBeGreaterThan(0.85);
    expect(bench.view.next.stage).toBe('decide');
  });
});

describe('a short that stays after the suspect is off', () => {
  const bench = new BenchPlay(heron).type(
    'look j1 good',
    'usb a 5.02 0.06',
    'usb b 5.02 0.06',
    'pack out',
    'out',
    'tp7 1.6',
  );

  test('first the controller is the suspect', () => {
    expect(bench.view.suspects[0].ref).toBe('U4');
  });

  test('with it off the short is still there: another part on the same line', () => {
    bench.type('off u4', 'tp7 1.6', 'tp7 1.7');
    const { suspects } = bench.view;
    expect(suspects[0].ref).not.toBe('U4');
    const onLine = heron.parts.filter((p) => Object.values(p.pins).includes('AON33')).map((p) => p.ref);
    expect(onLine).toContain(suspects[0].ref);
    expect(bench.chance('U4')).toBeLessThan(0.2);
  });

  test('the same measurement is worth taking again with the next part off', () => {
    // Or the current that shows which part holds it, which is quicker than lifting one after another.
    expect(bench.view.tests.some((t) => /^(lift|warm):/.test(t.id))).toBe(true);
  });
});

describe('good one way round only', () => {
  test('the suspects are all on that side: the connector’s row, the array, the controller’s own side', () => {
    const bench = new BenchPlay(marsh).type('look j1 good', 'usb j1 a 5.02 0.01', 'usb j1 b 20 1.05');
    const [port] = marsh.ports;
    const side = port.sides.find((s) => s.side === 'A')!;
    const onSide = new Set([...side.path, port.controller]);
    const share = bench.view.suspects.filter((s) => onSide.has(s.ref)).reduce((sum, s) => sum + s.p, 0);
    expect(share).toBeGreaterThan(0.9);
    expect(bench.chance(port.imagePart!)).toBeLessThan(0.02);
  });
});

describe('a rail that is low by nature', () => {
  const bench = new BenchPlay(heron).type('look j1 good', 'usb a 15 0.6', 'usb b 15 0.6', 'pack out', 'out');

  test('hundreds of ohms at the processor’s rail are said to be normal and accuse nobody', () => {
    const before = bench.chance('U8');
    bench.type(`c36 ${soundOhm('VCORE')}`);
    const reading = bench.view.readings.at(-1)!;
    expect(reading.meaning).toEqual({ message: 'low by nature here, normal', state: 'good' });
    expect(bench.chance('U8')).toBeLessThan(Math.max(before, 0.3));
  });

  test('a beep alone is not called a short there', () => {
    bench.type('c36 beep');
    expect(bench.view.readings.at(-1)!.meaning.state).toBe('plain');
  });
});

describe('an ESD array that shorts its line', () => {
  const bench = new BenchPlay(heron, { history: ['unknownCharger'] }).type(
    'look j1 good',
    'usb a 0 0',
    'usb b 15 0.6',
    'a5 0.012',
    'b5 0.262',
  );

  test('is found at the port, closed, by its own contact and its twin', () => {
    expect(bench.view.suspects[0].ref).toBe('D1');
    expect(bench.state.access).toBe('closed');
  });

  test('off the board the drop is back: it was the array, and the board file lets it stay off', () => {
    bench.type('pack out', 'off d1', 'a5 0.262', 'a5 0.261');
    expect(bench.view.curedChance + bench.chance('D1')).toBeGreaterThan(0.8);
    expect(heron.parts.find((p) => p.ref === 'D1')!.optional).toBe(true);
  });
});

describe('a corrupted image with a swinging boost', () => {
  const bench = new BenchPlay(heron).type('look j1 good', 'usb a swing', 'usb b swing');

  test('is suspected before the device is open', () => {
    expect(bench.view.suspects[0].ref).toBe('U9');
    expect(bench.state.access).toBe('closed');
  });

  test('its checks fail: the image is rewritten, which costs less than any chip', () => {
    bench.type('check u9 bad');
    expect(bench.chance('U9')).toBeGreaterThan(0.9);
    expect(bench.view.repairs[0].label).toBe('Rewrite the image of U9');
  });
});

describe('a surprising reading', () => {
  const bench = new BenchPlay(heron).type(
    'look j1 good',
    'usb a 5.02 0.06',
    'usb b 5.02 0.06',
    'pack out',
    'out',
    'tp7 1.6',
  );

  test('is asked for a second time before it counts for much', () => {
    expect(bench.view.surprise).toBeUndefined();
    bench.type('c36 0.9 ohm');
    expect(bench.view.surprise).toMatch(/^VCORE to ground 0\.90 Ω was expected \d+ in 100: take it a second time/);
  });

  test('and taken twice it stands', () => {
    bench.type('c36 0.95 ohm');
    expect(bench.view.surprise).toBeUndefined();
  });
});

test('a swap that changes nothing is not proposed again, and the readings after it speak of the board', () => {
  const bench = new BenchPlay(heron, { history: ['unknownCharger'] }).type('look j1 good', 'usb a 5.02 0.01');
  bench.type('swap charger same');
  expect(bench.state.swapped).toEqual(['charger']);
  expect(bench.view.tests.some((t) => t.id === 'swap:J1:charger')).toBe(false);
  bench.type('usb b 5.02 0.01');
  expect(bench.state.readings.at(-1)!.swapped).toEqual(['charger']);
});
