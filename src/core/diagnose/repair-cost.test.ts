import { demoBoard } from '../../../demo/files';
import { handiestPlace, partByRef, shieldOver } from '../board';
import type { RepairTarget } from './faults';
import { shieldFor, testMinutes } from './measurement';
import type { Measurement } from './measurements/registry';
import { proofMinutes, repairMinutes } from './repair-cost';

const marsh = demoBoard('marshdesk-2-b');
const part = (ref: string): RepairTarget => ({ kind: 'part', ref });
const heron = demoBoard('heronlog-4-c');

describe('what lies under a shield', () => {
  const clock: Measurement = { kind: 'groundResistance', net: 'XIN' };

  test('is measured with the shield off, which costs its minutes once', () => {
    const on = testMinutes(marsh, clock, 'out');
    expect(shieldFor(marsh, clock)!.id).toBe('SH1');
    expect(on - testMinutes(marsh, clock, 'out', new Set(['SH1']))).toBe(8);
  });

  test('costs nothing where the net can be reached beside it', () => {
    const core: Measurement = { kind: 'groundResistance', net: 'VCORE' };
    expect(shieldOver(marsh, handiestPlace(marsh, 'VCORE', partByRef(marsh, 'U8'))!)).toBeUndefined();
    expect(shieldFor(marsh, core)).toBeUndefined();
  });

  test('a shield is taken off for work and put back after it', () => {
    const open = { ...marsh, shields: [] };
    expect(repairMinutes(marsh, part('U8')).minutes - repairMinutes(open, part('U8')).minutes).toBe(16);
    expect(repairMinutes(marsh, part('U4')).minutes).toBe(repairMinutes(open, part('U4')).minutes);
  });
});

test('opening is paid for once, and only as far as a test needs it', () => {
  const usb: Measurement = { kind: 'usbMeter', port: 'J1', side: 'A' };
  const volts: Measurement = { kind: 'railVoltage', rail: 'V33' };
  const ohm: Measurement = { kind: 'groundResistance', net: 'V33' };
  const cost = (m: Measurement): number[] => (['closed', 'open', 'out'] as const).map((a) => testMinutes(heron, m, a));
  const [, , usbOut] = cost(usb);
  expect(cost(usb)).toEqual([usbOut, usbOut, usbOut]);
  expect(cost(volts)[0] - cost(volts)[1]).toBe(6);
  expect(cost(volts)[1]).toBe(cost(volts)[2]);
  expect(cost(ohm)[0] - cost(ohm)[2]).toBe(14);
});

test('needs cost what the work on them costs; nothing wrong costs its proof alone', () => {
  expect(repairMinutes(heron, { kind: 'nothing' })).toEqual({ minutes: 0, onBoard: false });
  expect(repairMinutes(heron, { kind: 'outside', what: 'pack' })).toEqual({ minutes: 4, onBoard: false });
  expect(repairMinutes(heron, { kind: 'rail', rail: 'VIN' }).onBoard).toBe(true);
  expect(repairMinutes(heron, { kind: 'image', ref: 'U9' }).minutes).toBeLessThan(
    repairMinutes(heron, part('U9')).minutes,
  );
  expect(proofMinutes(heron)).toBe(1 + heron.functions.reduce((sum, f) => sum + f.minutes, 0));
});
