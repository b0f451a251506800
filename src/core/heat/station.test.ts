import { NOMINAL_STATION, multiplierAt, outletSteadyC, plateSteadyC, stationSchema, withMultiplier } from './station';

const flows = {
  ...NOMINAL_STATION,
  multiplierByFlow: [
    { flowLpm: 40, multiplier: 0.8 },
    { flowLpm: 20, multiplier: 0.6 },
  ],
};

test('the multiplier between calibrated flows is on the straight line, beyond them the nearest', () => {
  expect([10, 20, 25, 30, 40, 60].map((f) => multiplierAt(flows, f))).toEqual([
    0.6,
    0.6,
    expect.closeTo(0.65, 9),
    expect.closeTo(0.7, 9),
    0.8,
    0.8,
  ]);
  expect(multiplierAt(NOMINAL_STATION, 30)).toBe(0.7);
  expect(multiplierAt({ ...flows, multiplierByFlow: [{ flowLpm: 30, multiplier: 0.5 }] }, 50)).toBe(0.5);
});

test('another multiplier moves all flows in the same measure', () => {
  const stronger = withMultiplier(flows, 0.77);
  expect(stronger.multiplier).toBe(0.77);
  expect(multiplierAt(stronger, 20) / 0.6).toBeCloseTo(1.1, 9);
  expect(multiplierAt(stronger, 40) / 0.8).toBeCloseTo(1.1, 9);
});

test('a plate at 235 reaches 226, and never more than its cap (prototype measurement)', () => {
  expect(plateSteadyC(235, 22, 400)).toBeCloseTo(226, 0);
  expect(plateSteadyC(300, 22, 230)).toBe(230);
});

test('a station of an older bench, without flows of its own, reads as before', () => {
  const older = Object.fromEntries(
    Object.entries(NOMINAL_STATION).filter(
      ([name]) => !['multiplierByFlow', 'lossShare', 'efficiencyByFlow', 'known'].includes(name),
    ),
  );
  expect(stationSchema.parse(older)).toEqual(NOMINAL_STATION);
});

test('the outlet efficiency goes with the flow to a power, from the flow it holds at, and no outlet is hotter than its dial by a tenth', () => {
  const falling = { ...NOMINAL_STATION, efficiencyByFlow: { exponent: -0.1, atFlowLpm: 30 } };
  expect(outletSteadyC(falling, 322, 30, 22)).toBeCloseTo(22 + 0.9 * 300, 9);
  expect(outletSteadyC(falling, 322, 60, 22)).toBeCloseTo(22 + 0.9 * 2 ** -0.1 * 300, 9);
  expect(outletSteadyC({ ...falling, efficiencyByFlow: { exponent: -1, atFlowLpm: 30 } }, 322, 3, 22)).toBeCloseTo(
    22 + 1.1 * 300,
    9,
  );
  expect(outletSteadyC(NOMINAL_STATION, 322, 60, 22)).toBeCloseTo(22 + 0.9 * 300, 9);
});
