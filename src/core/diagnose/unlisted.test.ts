/** What no list holds: its share, what it reads, and when it wins against what is listed. */
import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { groundNet } from '../board';
import { seededRandom } from '../math';
import { suspects, updateBelief } from './belief';
import { SOUND, UNLISTED, UNLISTED_SHARE, unlistedFaults } from './faults';
import { likelihood } from './likelihood';
import { definitionOf, type Measurement } from './measurements/registry';
import { dropScale, resistanceScale, voltageScale, type Scale } from './measurements/scale';
import { broadened, valuesOf, alternative, verdict } from './prediction';
import { idealReading } from './policy';
import type { Reading } from './reading';
import { Predictor } from './predictor';
import { sampleReading } from './simulate';
import type { Value } from './value';

const heron = Predictor.of(demoBoard('heronlog-4-c'));
const figure = (value: number): Value => ({ kind: 'figure', value });
const ohm = (net: string, value: number): Reading => ({
  measurement: { kind: 'groundResistance', net },
  value: figure(value),
});

describe.each(DEMO_BOARDS)('on %s', (id) => {
  const board = demoBoard(id);
  const faults = unlistedFaults(board);

  test('there is one at each net with a pad, and one for what is not drawn', () => {
    const nets = new Set(board.parts.flatMap((p) => Object.values(p.pins)));
    nets.delete(groundNet(board));
    expect(new Set(faults.map((f) => f.unlistedAt))).toEqual(new Set([...nets, null]));
  });

  test('their shares are the stated ones, the nets’ by their pads', () => {
    const local = faults.filter((f) => f.unlistedAt !== null).reduce((sum, f) => sum + f.weight, 0);
    expect(local).toBeCloseTo(UNLISTED_SHARE.local, 12);
    expect(faults.find((f) => f.unlistedAt === null)!.weight).toBe(UNLISTED_SHARE.global);
    const pads = (net: string): number =>
      board.parts.reduce((n, p) => n + Object.values(p.pins).filter((own) => own === net).length, 0);
    const [a, b] = faults;
    expect(a.weight / b.weight).toBeCloseTo(pads(a.unlistedAt!) / pads(b.unlistedAt!), 12);
  });

  test('before any reading they hold their share of the belief, with a second fault or without', () => {
    const { faults: all, marginal } = updateBelief(Predictor.of(board), [], []);
    const held = all.reduce((sum, f, i) => (f.ref === UNLISTED ? sum + marginal[i] : sum), 0);
    // One fault in a pair is as likely unlisted as one alone: 5 % of the boards, 15 % of which have a second one.
    expect(held).toBeGreaterThan(UNLISTED_SHARE.local + UNLISTED_SHARE.global - 0.01);
    expect(held).toBeLessThan(1.3 * (UNLISTED_SHARE.local + UNLISTED_SHARE.global));
  });
});

describe('a reading that may be anything', () => {
  /** Integral over the scale by the midpoint rule. */
  const integral = (density: (x: number) => number, low: number, high: number): number => {
    const steps = 20_000;
    const width = (high - low) / steps;
    let sum = 0;
    for (let k = 0; k < steps; k++) sum += density(low + (k + 0.5) * width) * width;
    return sum;
  };
  const broad = (scale: Scale, value: Value, sound = 5): number => scale.broad!(value, sound);

  test('is per decade of ohms from 0.1 Ω to 10 MΩ: seven of eight decades are shown, the last reads open', () => {
    const shown = integral((log) => broad(resistanceScale, figure(10 ** log)), -1, 5.9999);
    expect(shown).toBeCloseTo(7 / 8, 3);
    // An open reading is dense as a listed open is: a normal peak of 0.1 decades (1/(0.1·√2π) = 3.99).
    expect(broad(resistanceScale, { kind: 'open' })).toBeCloseTo(3.989 / 8, 2);
    expect(broad(resistanceScale, { kind: 'beep' })).toBeCloseTo((Math.log10(30) + 1) / 8, 9);
  });

  test('is per volt in diode mode: 0.8 of it up to 1.2 V, the rest open', () => {
    expect(integral((v) => broad(dropScale, figure(v)), 0, 1.2)).toBeCloseTo(0.8, 3);
    expect(broad(dropScale, { kind: 'open' })).toBeCloseTo(0.2 * 33.25, 1);
  });

  test('is per volt of a rail: 0.7 of it up to 1.2 times its level, 0.3 next to nothing', () => {
    const all = integral((v) => broad(voltageScale, figure(v), 3.3), 0, 5);
    // Half of the peak at nothing lies below zero.
    expect(all).toBeCloseTo(0.7 + 0.15, 2);
    expect(broad(voltageScale, figure(4.5), 3.3)).toBeCloseTo(0, 9);
  });

  test('halves what a test reads as it should, or leaves nothing of it', () => {
    expect(broadened(verdict(0.1), false, {})).toMatchObject({ failChance: 0.3 });
    expect(broadened(verdict(0.1), true, {})).toMatchObject({ failChance: 0.5 });
    const values = broadened(valuesOf(alternative(2, 0.1)), false, { sound: 2 });
    expect(values).toMatchObject({ alternatives: [{ weight: 0.5 }], broad: { share: 0.5 } });
  });

  test('reads mostly as before where the same test was taken before', () => {
    const m: Measurement = { kind: 'groundResistance', net: 'AON33' };
    const prediction = broadened(valuesOf(alternative(3.8, 0.1)), false, { sound: 3.8 });
    const odd = figure(40);
    const first = likelihood(m, odd, prediction);
    const same = likelihood(m, odd, prediction, {}, { before: figure(41) });
    const other = likelihood(m, odd, prediction, {}, { before: figure(4000) });
    expect(same).toBeGreaterThan(5 * first);
    expect(other).toBeLessThan(first);
  });

  test('no contact is the commonest wrong reading of a probe', () => {
    const { scale } = definitionOf({ kind: 'groundResistance', net: 'AON33' });
    expect(scale.slip({ kind: 'open' })).toBeGreaterThan(5 * scale.slip(figure(100)));
    expect(integral((log) => scale.slip(figure(10 ** log)), -1, 5.9999)).toBeCloseTo(0.7, 2);
  });
});

describe('listed against unlisted', () => {
  test.each(['U4/short/AON33+PD18', 'C14/short/AON33', 'F1/open', 'Q1/open'])('%s is found as itself', (id) => {
    const fault = heron.faults.find((f) => f.id === id)!;
    const random = seededRandom(5);
    const tests: Measurement[] = [
      ...(['A', 'B'] as const).map((side): Measurement => ({ kind: 'usbMeter', port: 'J1', side })),
      ...['AON33', 'PD18', 'VIN', 'VBUS_F', 'VSYS'].map((net): Measurement => ({ kind: 'groundResistance', net })),
      { kind: 'seriesResistance', ref: 'F1', line: '' },
      { kind: 'seriesResistance', ref: 'Q1', line: '' },
    ];
    const readings = tests.map((m) => sampleReading(heron, m, fault, random));
    const list = suspects(updateBelief(heron, readings, []));
    expect(list[0].ref).not.toBe(UNLISTED);
    expect(list.find((s) => s.ref === UNLISTED)!.p).toBeLessThan(0.1);
  });

  test('readings that no list explains are told at their net', () => {
    // 14 Ω is no short and no leak of the list; what lies round it reads as it should.
    const sound = ['VIN', 'VSYS', 'AON33'].map((net) => idealReading(heron, ohm(net, 0).measurement, SOUND));
    const readings = [ohm('CHG5', 14), ohm('CHG5', 14.5), ...sound];
    const before = updateBelief(heron, sound, []);
    const after = updateBelief(heron, readings, []);
    const at = (belief: typeof after): number =>
      belief.marginal[belief.faults.findIndex((f) => f.unlistedAt === 'CHG5')];
    expect(at(after)).toBeGreaterThan(3 * at(before));
  });

  test('a bench that finds unlisted causes more often reckons with them more', () => {
    const share = (unlisted: number): number =>
      suspects(updateBelief(heron, [], [], { unlisted })).find((s) => s.ref === UNLISTED)!.p;
    expect(share(3)).toBeGreaterThan(2.5 * share(1));
    expect(share(0.1)).toBeLessThan(0.2 * share(1));
  });
});
