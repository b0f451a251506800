/** What each fault mode does to the readings of a board. Directions are common practice, no published source. */
import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { groundNet, padsOf, partByRef } from '../board';
import { singleFaults } from './faults/catalogue';
import { solderBridges, traceCracks } from './faults/board-damage';
import { SHORT_OHM, type Fault } from './faults';
import { SOUND } from './faults';
import type { Measurement } from './measurements/registry';
import { idealReading } from './policy';
import { Predictor } from './predictor';

const board = demoBoard('heronlog-4-c');
const predictor = Predictor.of(board);
const NONE = new Set<string>();
const fault = (id: string): Fault => {
  const found = singleFaults(board).find((f) => f.id === id);
  if (!found) throw new Error(`no fault ${id}`);
  return found;
};
const pin = (name: string): Measurement => ({ kind: 'contactDrop', port: 'J1', pin: name });
const figure = (m: Measurement, f: Fault): number => {
  const { value } = idealReading(predictor, m, f);
  return value.kind === 'figure' ? value.value : value.kind === 'open' ? Infinity : NaN;
};
const meter = (side: 'A' | 'B', f: Fault): [number, number] => {
  const { value } = idealReading(predictor, { kind: 'usbMeter', port: 'J1', side }, f);
  return value.kind === 'pair' ? [value.volts, value.amps] : [NaN, NaN];
};
const volts = (rail: string, f: Fault): number => figure({ kind: 'railVoltage', rail }, f);

test('a leaking array reads low at its contact, not shorted, and its way does not talk', () => {
  const f = fault('D1/leak/CC1');
  const sound = figure(pin('A5'), SOUND);
  expect(figure(pin('A5'), f)).toBeGreaterThan(0.06);
  expect(figure(pin('A5'), f)).toBeLessThan(0.8 * sound);
  expect(figure(pin('B5'), f)).toBeCloseTo(sound, 3);
  expect(meter('A', f)[0]).toBeCloseTo(5, 1);
  expect(meter('B', f)[0]).toBeCloseTo(15, 1);
});

test('a dirty contact comes and goes: half of the tries at the meter fail, and the line is noisy', () => {
  const f = fault('J1/dirty/CC1');
  const seen = predictor.predict({ kind: 'usbMeter', port: 'J1', side: 'A' }, f, NONE, NONE);
  const full = seen.kind === 'values' ? seen.alternatives.filter((a) => a.means[0] > 10) : [];
  expect(full.reduce((sum, a) => sum + a.weight, 0)).toBeCloseTo(0.5, 9);
  const talk = predictor.predict({ kind: 'pdNegotiation', port: 'J1', side: 'A' }, f, NONE, NONE);
  expect(talk.kind === 'choice' && talk.chance.noisy).toBeGreaterThan(0.5);
  expect(meter('B', f)[0]).toBeCloseTo(15, 1);
});

test('a contact bridged to the bus beside it keeps its way from talking', () => {
  expect(meter('A', fault('J1/bridge/CC1'))[0]).toBeCloseTo(5, 1);
  expect(meter('B', fault('J1/bridge/CC1'))[0]).toBeCloseTo(15, 1);
});

test('a lifted pad takes the chip’s load with it: the line reads too high, and the chip is dead', () => {
  const m: Measurement = { kind: 'groundResistance', net: 'AON33' };
  expect(figure(m, fault('U4/pad/AON33'))).toBeGreaterThan(1.5 * figure(m, SOUND));
  expect(meter('A', fault('U4/pad/AON33'))[0]).toBeCloseTo(5, 1);
});

test('a filter line that is shorted to ground reads so on both of its ends', () => {
  const f = fault('FL1/short/DP_C');
  expect(figure(pin('A6'), f)).toBeLessThan(0.05);
  expect(figure({ kind: 'diodeDrop', net: 'DP' }, f)).toBeLessThan(0.05);
  expect(figure(pin('A7'), f)).toBeCloseTo(figure(pin('A7'), SOUND), 3);
});

test('a controller whose core is dead keeps its own regulator, and brings up nothing that waits for it', () => {
  const f = fault('U4/core');
  expect(volts('AON33', f)).toBeCloseTo(3.3, 2);
  expect(volts('PD18', f)).toBe(0);
  expect(volts('VIN', f)).toBe(0);
  expect(volts('AON33', fault('U4/dead'))).toBe(0);
});

test('a cracked trace leaves its rail dead and the one before it alive, and no ohmmeter at the rail tells', () => {
  const f = fault('V33/crack');
  expect(volts('V33', f)).toBe(0);
  expect(volts('VSYS', f)).toBeCloseTo(4.2, 2);
  expect(figure({ kind: 'groundResistance', net: 'V33' }, f)).toBeCloseTo(
    figure({ kind: 'groundResistance', net: 'V33' }, SOUND),
    6,
  );
});

test('the processor’s side takes half an ampere at five volts before anything boots', () => {
  const [v, a] = meter('A', fault('U8/load'));
  expect(v).toBeCloseTo(5, 1);
  expect(a).toBeGreaterThan(0.4);
  expect(a).toBeLessThan(0.6);
});

test('a flat pack shows as a tenth of an ampere at full level', () => {
  const [v, a] = meter('A', fault('outside/pack'));
  expect(v).toBeCloseTo(15, 1);
  expect(a).toBeCloseTo(0.1, 2);
});

test('shorts have the resistance of a typical shorted part', () => {
  expect(figure({ kind: 'groundResistance', net: 'VIN' }, fault('C4/short/VIN'))).toBeCloseTo(SHORT_OHM + 0.1, 1);
});

describe.each(DEMO_BOARDS)('geometry of %s', (id) => {
  const own = demoBoard(id);

  test('solder bridges join two nets of two parts whose pads lie close, and nothing else', () => {
    const bridges = solderBridges(own);
    expect(bridges.length).toBeGreaterThan(5);
    expect(new Set(bridges.map((f) => f.id)).size).toBe(bridges.length);
    for (const f of bridges) {
      const [ref, , other, nets] = f.id.split('/');
      const [a, b] = nets.split('-');
      expect(a).not.toBe(b);
      const at = (name: string, net: string) =>
        padsOf(own, partByRef(own, name)!).filter((pad) => partByRef(own, name)!.pins[pad.pin] === net);
      const gaps = [
        ...at(ref, a).flatMap((p) => at(other, b).map((q) => Math.hypot(p.xMm - q.xMm, p.yMm - q.yMm))),
        ...at(ref, b).flatMap((p) => at(other, a).map((q) => Math.hypot(p.xMm - q.xMm, p.yMm - q.yMm))),
      ];
      // Centres of small pads lie at most a few millimetres apart when their edges are within a bridge's reach.
      expect(Math.min(...gaps)).toBeLessThan(6);
      expect(f.story).toBe('earlierRepair');
    }
  });

  test('a bridge to ground is a short of the other net', () => {
    const ground = groundNet(own);
    for (const f of solderBridges(own).filter((x) => x.id.includes(ground)))
      expect(f.effects[0]).toMatchObject({ kind: 'shunt', ohm: SHORT_OHM });
  });

  test('every rail that comes from another one can lose its trace', () => {
    const rails = own.rails.filter((r) => r.feeds.some((f) => f.from !== null)).map((r) => r.id);
    expect(traceCracks(own).map((f) => f.ref)).toEqual(rails);
  });

  test('each screw reaches one net', () => {
    const screws = singleFaults(own).filter((f) => f.id.includes('/through/'));
    expect(screws.map((f) => f.ref)).toEqual(own.screws.map((s) => s.id));
  });
});
