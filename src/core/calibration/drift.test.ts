import { normalDraw, seededRandom } from '../math';
import type { Calibration } from './fit';
import { driftOf } from './trials';

const calibration = (efficiency: number, multiplier: number): Calibration =>
  ({
    outletEfficiency: { value: 0.9 + 0.02 * efficiency, sd: 0.02 },
    multiplier: { value: 1 + 0.05 * multiplier, sd: 0.05 },
  }) as unknown as Calibration;

// Two figures are looked at, and the larger difference decides: held to 1.96 each, 8 to 10 % of pairs of one station would differ.
test.each([0, 0.6, -0.8])(
  'of pairs of one station 5 %% differ for real or fewer, its figures correlated by %p',
  (correlation) => {
    const random = seededRandom(23);
    const draw = (): Calibration => {
      const e = normalDraw(random);
      return calibration(e, correlation * e + Math.sqrt(1 - correlation ** 2) * normalDraw(random));
    };
    const rounds = 8000;
    let real = 0;
    for (let k = 0; k < rounds; k++) if (driftOf(draw(), draw()).real) real++;
    // Four standard errors of a share of 0.05 in 8000 are 1 %.
    expect(real / rounds).toBeLessThan(0.06);
    expect(real / rounds).toBeGreaterThan(0.02);
  },
);

test('a station that has changed is noticed', () => {
  expect(driftOf(calibration(0, 0), calibration(4, 0))).toMatchObject({ real: true });
  expect(driftOf(calibration(0, 0), calibration(1, -1)).real).toBe(false);
});
