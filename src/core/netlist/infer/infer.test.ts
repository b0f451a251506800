import { SKETCHED } from '../tests/sketched-boards';
import { infer } from '.';
import { ccByName, groundRank, isSupplyName, voltsByName } from './names';

describe.each(SKETCHED)('$name', ({ foreign, truth }) => {
  const found = infer(foreign);

  test('ground, ports, controllers and memories', () => {
    expect(found.ground).toBe(truth.ground);
    expect(
      found.ports.map(({ connector, controller, flash, bus, cc1, cc2 }) => ({
        connector,
        controller,
        flash,
        bus,
        cc: [cc1, cc2],
      })),
    ).toEqual(truth.ports.map((p) => ({ flash: undefined, ...p })));
  });

  test('all rails and no others, each behind what feeds it', () => {
    expect(found.rails.map((r) => r.net).sort()).toEqual([...truth.rails].sort());
    const seen = new Set<string>();
    for (const { net, from } of found.rails) {
      if (from !== undefined) expect(seen).toContain(from);
      seen.add(net);
    }
  });
});

test.each([
  ['+3V3', 3.3],
  ['/pd-ctl/ldo_1v8', 1.8],
  ['5V_SYS', 5],
  ['P12V0', 12],
  ['VDD_3.3', 3.3],
  ['V1P8', 1.8],
  ['AON33', 3.3],
  ['PP5V', 5],
  ['1V05', 1.05],
  ['VSYS', undefined],
  ['-5V', undefined],
  ['GPIO3', undefined],
])('volts by the name of %s', (net, volts) => expect(voltsByName(net)).toBe(volts));

test('what only speaks of a supply is none', () => {
  for (const net of ['VBUS_EN', 'VREF', 'VBAT_SNS', '3V3_PG', 'EN_5V', 'GND', 'VSENSE'])
    expect([net, isSupplyName(net)]).toEqual([net, false]);
  for (const net of ['VBUS', '/usb/Vbus', 'BAT+', 'VDDIO', '+12V_IN', 'V12'])
    expect([net, isSupplyName(net)]).toEqual([net, true]);
});

test('ground and CC lines by their names', () => {
  expect([groundRank('GND') < groundRank('AGND'), groundRank('/sheet/GND'), groundRank('SIGNAL')]).toEqual([
    true,
    0,
    3,
  ]);
  expect(['CC1', 'USBC_CC2', '/p.1/cc1', 'ACC1', 'CC10'].map(ccByName)).toEqual([1, 2, 1, undefined, undefined]);
});
