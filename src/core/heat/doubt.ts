import { choleskyOf } from '../math';
import type { HeatPlan } from './plan';
import { withMultiplier, type Station } from './station';
import { filmDoubt } from './validity';

/** What is not known of a station for sure, in the order of its covariance. */
export const STATION_UNKNOWNS = [
  'outletEfficiency',
  'multiplier',
  'spreadDiameters',
  'outletLagS',
  'lossShare',
  'flowExponent',
] as const;
export type StationUnknown = (typeof STATION_UNKNOWNS)[number];
export type StationUnknowns = Record<StationUnknown, number>;

/**
 * One standard deviation before any trial. Entrainment, lag, losses and how efficiency goes with the flow are engineering estimates;
 * efficiency and multiplier come from the station's stated doubt.
 */
export const PRIOR_SDS = { spreadDiameters: 0.5, outletLagS: 1.5, lossShare: 0.1, flowExponent: 0.05 } as const;

/**
 * The outlet efficiency is known better than the multiplier: a coupon calibration leaves ε within 3.5 % and m within 9.4 % (95 %
 * ranges of the prototype, .82–.88 and .73–.88). The same share is taken of any stated doubt.
 */
const EFFICIENCY_SHARE = 0.37;

/** What the model itself is off by, as a share of the rise above the room, one standard deviation. Engineering estimate. */
const MODEL_SHARE = 0.01;

export const unknownsOf = (station: Station): StationUnknowns => ({
  outletEfficiency: station.outletEfficiency,
  multiplier: station.multiplier,
  spreadDiameters: station.spreadDiameters,
  outletLagS: station.outletLagS,
  lossShare: station.lossShare,
  flowExponent: station.efficiencyByFlow?.exponent ?? 0,
});

/** Physical bounds of what a station may be. */
export const STATION_BOUNDS: Record<StationUnknown, readonly [number, number]> = {
  outletEfficiency: [0.4, 1.1],
  multiplier: [0.15, 2.5],
  spreadDiameters: [1.5, 8],
  outletLagS: [0.5, 20],
  lossShare: [0.4, 2.5],
  flowExponent: [-0.6, 0.6],
};

/** The station with other values, within their physical bounds; without a flow that its efficiency holds at, the exponent has no meaning. */
export function withUnknowns(station: Station, values: StationUnknowns): Station {
  const within = (name: StationUnknown): number => {
    const [low, high] = STATION_BOUNDS[name];
    return Math.min(high, Math.max(low, values[name]));
  };
  return {
    ...withMultiplier(station, within('multiplier')),
    outletEfficiency: within('outletEfficiency'),
    spreadDiameters: within('spreadDiameters'),
    outletLagS: within('outletLagS'),
    lossShare: within('lossShare'),
    efficiencyByFlow: station.efficiencyByFlow && { ...station.efficiencyByFlow, exponent: within('flowExponent') },
  };
}

/** Covariance of the unknowns: a calibration's, or what the stated doubt says of a station that was never calibrated. */
export function covarianceOf({ known, outletEfficiency, multiplier, doubt }: Station): readonly (readonly number[])[] {
  if (known) return known.covariance;
  const sds: StationUnknowns = {
    outletEfficiency: EFFICIENCY_SHARE * doubt * outletEfficiency,
    multiplier: doubt * multiplier,
    ...PRIOR_SDS,
  };
  return STATION_UNKNOWNS.map((a) => STATION_UNKNOWNS.map((b) => (a === b ? sds[a] ** 2 : 0)));
}

/**
 * Independent directions of what is not known, one standard deviation long, in the order of {@link STATION_UNKNOWNS}: the columns of a
 * square root of the covariance. What they do to a temperature adds in squares.
 */
export function doubtDirections(station: Station): number[][] {
  const n = STATION_UNKNOWNS.length;
  const covariance = covarianceOf(station).flat();
  const root = choleskyOf(
    Float64Array.from(covariance, (v, i) => (i % (n + 1) === 0 ? v + LEAST_VARIANCE : v)),
    n,
  );
  return STATION_UNKNOWNS.map((_, k) => STATION_UNKNOWNS.map((_, i) => root[i * n + k]));
}

/** The station moved by so much of each direction. */
export function movedBy(station: Station, directions: readonly (readonly number[])[], by: readonly number[]): Station {
  const here = unknownsOf(station);
  const entries = STATION_UNKNOWNS.map((name, i) => [
    name,
    directions.reduce((sum, direction, k) => sum + by[k] * direction[i], here[name]),
  ]);
  return withUnknowns(station, Object.fromEntries(entries) as StationUnknowns);
}

/**
 * Stations that lie one standard deviation off, one along each direction, and one whose film is off by what the plan's air is in
 * doubt by; what they differ by adds in squares, {@link spreadOf}.
 */
export function doubtAxes(station: Station, plan: HeatPlan): Station[] {
  const directions = doubtDirections(station);
  // Without a flow that the efficiency holds at, its exponent changes nothing.
  const told = station.efficiencyByFlow ? directions : directions.slice(0, -1);
  const axes = told.map((_, k) =>
    movedBy(
      station,
      directions,
      directions.map((_, j) => Number(j === k)),
    ),
  );
  return [...axes, withMultiplier(station, station.multiplier * (1 + filmDoubt(station, plan)))];
}

/** Keeps a covariance that is all but singular one that can be taken apart; far below any real variance. */
const LEAST_VARIANCE = 1e-10;

/** One standard deviation of a temperature from what it is off by along each direction, K, and the model's own error. */
export const spreadOf = (offsK: readonly number[], riseK = 0): number => Math.hypot(...offsK, MODEL_SHARE * riseK);
