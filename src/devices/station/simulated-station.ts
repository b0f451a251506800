import {
  ALLOY_SD_K,
  BEFORE,
  PROBE_SD_K,
  blowCoupon,
  meltSdS,
  reaches,
  thresholdOf,
  type CouponRun,
  type ProbePlace,
  type Unknowns,
} from '../../core/calibration';
import type { Station } from '../../core/heat';
import { normalDraw, type Random } from '../../core/math';

/** Settings of the air over the coupon. */
export type Blow = Omit<CouponRun, 'durationS'>;
const LONGEST_S = 180;

/**
 * A hot-air station over the coupon whose true parameters nobody is told, with a thermocouple logger beside it: stands in for
 * the bench where there is none. It answers like a person with a watch and like a logger with its noise.
 */
export class SimulatedStation {
  constructor(
    private readonly dial: Station,
    private readonly truth: Unknowns,
    private readonly random: Random,
  ) {}

  /** True parameters drawn as a calibration takes them to be; efficiency and multiplier evenly over what stations are like. */
  static drawTruth(random: Random): Unknowns {
    const about = (name: keyof Unknowns): number => BEFORE[name].value + BEFORE[name].sd * normalDraw(random);
    return {
      outletEfficiency: 0.7 + 0.3 * random(),
      multiplier: 0.55 + 0.5 * random(),
      spreadDiameters: about('spreadDiameters'),
      outletLagS: about('outletLagS'),
      lossShare: about('lossShare'),
      flowExponent: about('flowExponent'),
      heatShare: about('heatShare'),
      probeShare: about('probeShare'),
    };
  }

  /** Seconds until an alloy is seen to melt; null when it does not within three minutes. */
  melt(blow: Blow, alloyC: number): number | null {
    const { slug } = blowCoupon(this.dial, this.truth, { ...blow, durationS: LONGEST_S });
    const seconds = reaches(slug, this.alloy(alloyC));
    return seconds === null ? null : Math.max(1, seconds + meltSdS(seconds) * normalDraw(this.random));
  }

  /** The lowest set point, in fives, at which an alloy melts within two minutes. */
  threshold(blow: Omit<Blow, 'setC'>, alloyC: number): number {
    return thresholdOf(this.dial, this.truth, blow, this.alloy(alloyC));
  }

  /** What a thermocouple at a place shows at whole seconds. */
  log(blow: Blow, durationS: number, places: readonly ProbePlace[]): { place: ProbePlace; readC: number[] }[] {
    const curves = blowCoupon(this.dial, this.truth, { ...blow, durationS });
    const shown = (t: number): number =>
      blow.ambientC + this.truth.probeShare * (t - blow.ambientC) + PROBE_SD_K * normalDraw(this.random);
    return places.map((place) => ({ place, readC: [...curves[place]].map(shown) }));
  }

  /** No two samples of an alloy melt at quite the same temperature. */
  private alloy(alloyC: number): number {
    return alloyC + ALLOY_SD_K * normalDraw(this.random);
  }
}
