import type { Station } from '../heat';
import { blowCoupon, type ProbePlace } from './coupon';
import type { Calibration } from './fit';
import type { Trial } from './observation';

/** A log of the coupon as a station with what was found would have made it: every probe over whole seconds, °C. */
export function loggedBy(
  station: Station,
  { outletEfficiency, multiplier, spreadDiameters, outletLagS, lossShare, flowExponent }: Calibration,
  trial: Extract<Trial, { kind: 'log' }>,
): { readonly name: ProbePlace; readonly readC: readonly number[] }[] {
  const unknowns = {
    outletEfficiency: outletEfficiency.value,
    multiplier: multiplier.value,
    spreadDiameters: spreadDiameters.value,
    outletLagS: outletLagS.value,
    lossShare: lossShare?.value ?? station.lossShare,
    flowExponent: flowExponent?.value ?? 0,
    heatShare: 1,
    probeShare: 1,
  };
  const durationS = Math.max(...trial.probes.map((p) => p.readC.length)) - 1;
  const curves = blowCoupon(station, unknowns, { ...trial, durationS });
  return trial.probes.map(({ place }) => ({ name: place, readC: [...curves[place]] }));
}
