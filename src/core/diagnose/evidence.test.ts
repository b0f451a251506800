/** What the outside tells the belief. Directions are common practice, no published source. */
import { demoBoard } from '../../../demo/files';
import { suspects, updateBelief } from './belief';
import { DEFAULT_PRACTICE, practiceSchema, type Practice } from './practice';
import { Predictor } from './predictor';
import { proposeTests } from './next';
import type { Measurement } from './measurements/registry';
import type { Reading } from './reading';
import { type Value } from './value';

const heron = Predictor.of(demoBoard('heronlog-4-c'));
const read = (measurement: Measurement, value: Value): Reading => ({ measurement, value });
const chance = (
  readings: readonly Reading[],
  id: (faultId: string) => boolean,
  practice: Practice = DEFAULT_PRACTICE,
) => {
  const { faults, marginal } = updateBelief(heron, readings, [], practice);
  return faults.reduce((sum, f, i) => sum + (id(f.id) ? marginal[i] : 0), 0);
};
const usb = (side: 'A' | 'B', volts: number, amps: number): Reading =>
  read({ kind: 'usbMeter', port: 'J1', side }, { kind: 'pair', volts, amps });
const shape = (value: 'steady' | 'swing' | 'restart' | 'early'): Reading =>
  read({ kind: 'meterPattern', port: 'J1', side: 'A' }, { kind: 'choice', choice: value });

test('a swinging meter points at the image', () => {
  expect(suspects(updateBelief(heron, [shape('swing')], []))[0].fault.id).toBe('U9/image');
});

test('restarts again and again point at what the system requires: its sensors', () => {
  const required = heron.board.parts.filter((p) => p.required).map((p) => p.ref);
  const readings = [usb('A', 15, 0.6), usb('B', 15, 0.6), shape('restart')];
  expect(required).toContain(suspects(updateBelief(heron, readings, []))[0].ref);
});

test('half an ampere at once points at the processor’s side, not the port', () => {
  const belief = updateBelief(heron, [shape('early'), usb('A', 5.02, 0.5)], []);
  expect(suspects(belief)[0].ref).toBe('U8');
});

test('about 0.1 A at full level points at a flat pack', () => {
  const belief = updateBelief(heron, [usb('A', 15, 0.1), usb('B', 15, 0.1)], []);
  expect(suspects(belief)[0].fault.id).toBe('outside/pack');
});

test('offers that are acknowledged and not asked for point at the image, unanswered ones at the controller', () => {
  const talk = (stop: 'offersNotAsked' | 'offersUnanswered'): string =>
    suspects(
      updateBelief(
        heron,
        [read({ kind: 'pdNegotiation', port: 'J1', side: 'A' }, { kind: 'choice', choice: stop })],
        [],
      ),
    )[0].ref;
  expect([talk('offersNotAsked'), talk('offersUnanswered')]).toEqual(['U9', 'U4']);
});

describe('swaps', () => {
  const silent = [usb('A', 5.02, 0.01), usb('B', 5.02, 0.01)];
  const swap = (what: 'charger' | 'cable' | 'pack', kind: 'pass' | 'fail'): Reading =>
    read({ kind: 'knownGoodSwap', port: 'J1', what }, { kind });

  test('that cure name the culprit, that change nothing clear what was swapped', () => {
    const charger = (id: string): boolean => id === 'outside/charger';
    const before = chance(silent, charger);
    expect(chance([...silent, swap('charger', 'pass')], charger)).toBeGreaterThan(0.5);
    expect(chance([...silent, swap('charger', 'fail')], charger)).toBeLessThan(before / 3);
  });

  test('make later readings speak of the board alone', () => {
    const after: Reading = { ...usb('A', 5.02, 0.01), swapped: ['charger'] };
    const rate = (r: Reading): number => chance([r], (id) => id === 'outside/charger');
    expect(rate(after)).toBeLessThan(rate(usb('A', 5.02, 0.01)) / 5);
  });

  test('are proposed with their minutes while something outside is worth them, and not again once in line', () => {
    const context = { access: 'closed', absent: new Set<string>(), replaced: [] } as const;
    const ids = (swapped: ('charger' | 'cable')[]): string[] =>
      proposeTests(updateBelief(heron, silent, ['unknownCharger']), {
        ...context,
        swapped,
        taken: silent,
      }).flatMap(({ measurement: m }) => (m.kind === 'knownGoodSwap' ? [m.what] : []));
    expect(ids([])).toEqual(expect.arrayContaining(['charger', 'cable', 'pack']));
    expect(ids(['charger'])).not.toContain('charger');
  });
});

describe('quick testers', () => {
  const failed = [read({ kind: 'portTester', port: 'J1' }, { kind: 'fail' })];
  const silent = (id: string): boolean => id.startsWith('U4/dead');

  test('count for as much as the bench trusts them', () => {
    const trusted = { errorRates: { portTester: 0.02 } };
    const distrusted = { errorRates: { portTester: 0.5 } };
    const none = chance([], silent);
    expect(chance(failed, silent, trusted)).toBeGreaterThan(chance(failed, silent));
    expect(chance(failed, silent)).toBeGreaterThan(chance(failed, silent, distrusted));
    expect(chance(failed, silent, distrusted)).toBeGreaterThan(none);
  });

  test('are fooled by a bad connector: a fail speaks for it as well', () => {
    const pin = (id: string): boolean => id.startsWith('J1/pin/DP');
    expect(chance(failed, pin)).toBeGreaterThan(chance([], pin));
  });

  test('error rates outside one in a thousand to one half are refused', () => {
    expect(practiceSchema.safeParse({ errorRates: { portTester: 0.7 } }).success).toBe(false);
    expect(practiceSchema.safeParse({ errorRates: { nothing: 0.1 } }).success).toBe(false);
    expect(practiceSchema.parse({})).toEqual({ errorRates: {}, factors: {}, records: {} });
  });
});

test('about half a volt at the battery connector speaks for the charge path', () => {
  const half = [read({ kind: 'railVoltage', rail: 'VPACK' }, { kind: 'figure', value: 0.5 })];
  const path = (id: string): boolean => /^(U2|Q2|L1)\//.test(id);
  expect(chance(half, path)).toBeGreaterThan(chance([], path));
});

test('one open data contact is seen at its own pin and not at its twin', () => {
  const at = (pin: string, value: Value): Reading => read({ kind: 'contactDrop', port: 'J1', pin }, value);
  const readings = [at('A6', { kind: 'open' }), at('B6', { kind: 'figure', value: 0.258 })];
  expect(suspects(updateBelief(heron, readings, []))[0].fault.id).toBe('J1/pin/DP_C/A6');
});

test('a rail that comes and goes points at what makes it, though it reads well while it is there', () => {
  const volts = (rail: string, value: number, swings?: boolean): Reading =>
    read({ kind: 'railVoltage', rail }, { kind: 'figure', value, ...(swings && { swings }) });
  const sound = ['VBUS', 'VBUS_F', 'AON33', 'PD18', 'VIN'].map((rail) =>
    volts(rail, heron.board.rails.find((r) => r.id === rail)!.expect.kind === 'bus' ? 15 : rail === 'PD18' ? 1.8 : 3.3),
  );
  const onU2 = (last: Reading): number => chance([...sound, last], (id) => id.startsWith('U2/'));
  expect(onU2(volts('CHG5', 5, true))).toBeGreaterThan(0.5);
  expect(onU2(volts('CHG5', 5))).toBeLessThan(0.3);
});
