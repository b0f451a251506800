/** Facts of the trade on rails, connector voltages and draws, as the proof judges them: common practice, no published source. */
import { demoBoard } from '../../../demo/files';
import { Predictor, idealReading, SOUND, type Value } from '../diagnose';
import { foldJob, viewJob, type EventBody, type JobEvent } from '../job';
import { CHARGERS, expectDraw } from '../trace';
import { proveRails, railWindows } from '.';

const heron = demoBoard('heronlog-4-c');
const marsh = demoBoard('marshdesk-2-b');

const viewOf = (board: typeof heron, ...bodies: EventBody[]) =>
  viewJob(
    1,
    '2026-11-24T08:00:00Z',
    board,
    bodies.map((body, i): JobEvent => ({ seq: i + 1, at: '2026-11-24T08:00:00Z', bench: 'B', actor: 'A', body })),
  );
const usb = (port: string, side: 'A' | 'B', volts: number, amps: number): EventBody => ({
  kind: 'reading',
  measurement: { kind: 'usbMeter', port, side },
  value: { kind: 'pair', volts, amps },
});
const PACK_OUT: EventBody = { kind: 'pack', state: 'out' };
const healthy = (board: typeof heron, port: string, volts: number, amps: number, ...before: EventBody[]) =>
  viewOf(board, ...before, usb(port, 'A', volts, amps)).proof.plugs.find((p) => p.port === port && p.side === 'A')!
    .healthy;
const charger = (name: RegExp) => CHARGERS.find((c) => name.test(c.name))!;

test('the pack connector with the charger in and the pack out passes from 3.7 to 4.0 V, and fails at half a volt', () => {
  const stateAt = (volts: number) =>
    proveRails(heron, new Map([['VPACK', volts]])).rails.find((r) => r.rail.id === 'VPACK')!.state;
  expect([3.71, 3.85, 3.99].map(stateAt)).toEqual(['passes', 'passes', 'passes']);
  expect([0.5, 4.3].map(stateAt)).toEqual(['fails', 'fails']);
});

test('at a 15 V design, 0.4 to 0.8 A at full level is healthy with a partly charged pack, 5 V and 0.01 A is not', () => {
  for (const amps of [0.4, 0.6, 0.8]) expect(healthy(heron, 'J1', 15, amps)).toBe(true);
  expect(healthy(heron, 'J1', 5, 0.01)).toBe(false);
  // Over an ampere when accessories are charged fast: still no fault.
  expect(healthy(heron, 'J1', 15, 1.1)).toBe(true);
});

test('straight to half an ampere at 5 V is the processor’s side: no proof of the port', () => {
  expect(healthy(heron, 'J1', 5, 0.5)).toBe(false);
});

test('at a 20 V design without a pack about 0.23 A on any port is normal', () => {
  const [first] = marsh.ports;
  expect(first.designV).toBe(20);
  for (const port of marsh.ports) expect(healthy(marsh, port.id, 20, 0.23, PACK_OUT)).toBe(true);
  const draw = expectDraw(first, CHARGERS[CHARGERS.length - 1], 'out');
  expect(draw.amps[0]).toBeLessThanOrEqual(0.23);
  expect(draw.amps[1]).toBeGreaterThanOrEqual(0.23);
});

test('a deeply flat pack draws about 0.1 A, at any level', () => {
  const { amps } = expectDraw(heron.ports[0], CHARGERS[CHARGERS.length - 1], 'flat');
  expect(amps[0]).toBeLessThan(0.1);
  expect(amps[1]).toBeGreaterThan(0.1);
  expect(amps[1]).toBeLessThan(0.2);
});

test('at 5 V a small charger shows about 0.93 A and a large one 1.9 A, both healthy', () => {
  const five = { ...heron.ports[0], designV: 5, healthyA: [0.5, 2] as [number, number] };
  const windowOf = (name: RegExp) => expectDraw(five, charger(name), 'partly').amps;
  for (const [name, amps] of [
    [/^small/, 0.93],
    [/^10 W/, 1.9],
  ] as const) {
    const [low, high] = windowOf(name);
    expect(amps).toBeGreaterThanOrEqual(low);
    expect(amps).toBeLessThanOrEqual(high);
  }
  expect(windowOf(/^small/)[1]).toBeLessThan(1.9);
});

test('every rail of a sound board passes its own window', () => {
  for (const board of [heron, marsh]) {
    const predictor = Predictor.of(board);
    const volts = (rail: string): number => {
      const { value }: { value: Value } = idealReading(predictor, { kind: 'railVoltage', rail }, SOUND);
      return value.kind === 'figure' ? value.value : NaN;
    };
    const measured = new Map(railWindows(board).map((w) => [w.rail.id, volts(w.rail.id)]));
    expect(proveRails(board, measured).rails.filter((r) => r.state !== 'passes')).toEqual([]);
  }
});

test('full level without current passes only while the pack is out', () => {
  expect(foldJob([]).packOut).toBe(false);
  expect(healthy(heron, 'J1', 15, 0.02)).toBe(false);
  expect(healthy(heron, 'J1', 15, 0.02, PACK_OUT)).toBe(true);
});
