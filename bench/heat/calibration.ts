import { COUPON_ALLOYS_C, DEFAULT_BLOW, fitStation, type Trial, type Unknowns } from '../../src/core/calibration';
import { NOMINAL_STATION } from '../../src/core/heat';
import { seededRandom } from '../../src/core/math';
import { SimulatedStation } from '../../src/devices/station';
import { note, ratio, section } from '../print';

const TRIALS = 400;
type Way = 'coupon' | 'log';

/** The guided protocol of the coupon, or one log of a minute with two probes. */
function trialsOf(way: Way, station: SimulatedStation): Trial[] {
  if (way === 'log') return [{ kind: 'log', ...DEFAULT_BLOW, probes: station.log(DEFAULT_BLOW, 60, ['slug', 'far']) }];
  const thresholds = [138, 183].map((alloyC): Trial => {
    return { kind: 'threshold', ...DEFAULT_BLOW, alloyC, setC: station.threshold(DEFAULT_BLOW, alloyC) };
  });
  const melts = [350, 400].flatMap((setC) =>
    COUPON_ALLOYS_C.flatMap((alloyC): Trial[] => {
      const seconds = station.melt({ ...DEFAULT_BLOW, setC }, alloyC);
      return seconds === null ? [] : [{ kind: 'melt', ...DEFAULT_BLOW, setC, alloyC, seconds }];
    }),
  );
  return [...thresholds, ...melts];
}

/** How often the true parameters lie in the stated 95 % ranges. */
function benchCalibration(): void {
  for (const way of ['coupon', 'log'] as const) {
    section(`Calibration by ${way}: ${TRIALS} stations with hidden parameters`);
    const inside = { outletEfficiency: 0, multiplier: 0 };
    const widths: number[] = [];
    let refused = 0;
    for (let k = 0; k < TRIALS; k++) {
      const random = seededRandom(1000 + k);
      const truth: Unknowns = SimulatedStation.drawTruth(random);
      const fit = fitStation(NOMINAL_STATION, trialsOf(way, new SimulatedStation(NOMINAL_STATION, truth, random)));
      if (!fit.ok) {
        refused += 1;
        continue;
      }
      for (const name of ['outletEfficiency', 'multiplier'] as const)
        inside[name] += Number(Math.abs(fit.value[name].value - truth[name]) <= 1.96 * fit.value[name].sd);
      widths.push((1.96 * fit.value.multiplier.sd) / fit.value.multiplier.value);
    }
    const fitted = TRIALS - refused;
    note(
      `${refused} refused; multiplier known to ± ${(100 * (widths.sort((a, b) => a - b)[widths.length >> 1] ?? NaN)).toFixed(0)} % (middle)`,
    );
    ratio('true efficiency inside its 95 % range', inside.outletEfficiency / fitted, '0.93 to 0.97');
    ratio('true multiplier inside its 95 % range', inside.multiplier / fitted, '0.93 to 0.97');
  }
}

benchCalibration();
