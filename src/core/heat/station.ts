import { z } from 'zod';

/** A hot-air station with its plate. What calibration finds is stored here; the nominal values are a prototype's. */
export const stationSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]+$/),
  name: z.string().min(1),
  /** Outlet efficiency ε: outlet = ambient + ε (set − ambient). */
  outletEfficiency: z.number().min(0.3).max(1.1),
  multiplier: z.number().min(0.1).max(3),
  multiplierByFlow: z
    .array(z.object({ flowLpm: z.number().positive(), multiplier: z.number().min(0.1).max(3) }))
    .default([])
    .describe('where it was calibrated at several flows; between them by straight lines, beyond them the nearest'),
  spreadDiameters: z.number().min(1).max(10).default(3.5),
  /** Time for the outlet to follow the dial (engineering estimate 6 s). */
  outletLagS: z.number().min(0).max(60).default(6),
  nozzlesMm: z.array(z.number().positive()).min(1),
  flowLpm: z.tuple([z.number().positive(), z.number().positive()]),
  setC: z.tuple([z.number(), z.number()]),
  lossShare: z
    .number()
    .min(0.3)
    .max(3)
    .default(1)
    .describe('still air and radiation round the work against what is assumed of them'),
  efficiencyByFlow: z
    .object({ exponent: z.number().min(-1).max(1), atFlowLpm: z.number().positive() })
    .nullable()
    .default(null)
    .describe('the outlet efficiency holds at this flow; at others it goes with the flow to this power'),
  known: z
    .object({ covariance: z.array(z.array(z.number()).length(6)).length(6) })
    .nullable()
    .default(null)
    .describe(
      'what a calibration leaves open: covariance of ε, m, spread in diameters, lag in s, loss share and the flow exponent',
    ),
  /** Radius of the small circle the nozzle is moved in. */
  motionRadiusMm: z.number().min(0).max(10).default(2.5),
  irons: z
    .array(
      z.object({
        name: z.string().min(1).max(40),
        setC: z.tuple([z.number(), z.number()]),
        tipsMm: z.array(z.number().positive()),
      }),
    )
    .default([])
    .describe('soldering irons beside it: dial range and widths of the tips'),
  plate: z.object({ maxSetC: z.number(), capC: z.number(), lagS: z.number().positive() }).nullable(),
  doubt: z.number().min(0).max(0.5).default(0.08).describe('relative spread of the multiplier, one standard deviation'),
});

export type Station = z.infer<typeof stationSchema>;

/** Nominal station of the prototype, used where no calibrated one is named. */
export const NOMINAL_STATION: Station = {
  id: 'nominal',
  name: 'Nominal station',
  outletEfficiency: 0.9,
  multiplier: 0.7,
  multiplierByFlow: [],
  spreadDiameters: 3.5,
  outletLagS: 6,
  lossShare: 1,
  efficiencyByFlow: null,
  known: null,
  nozzlesMm: [4, 6, 8, 10],
  flowLpm: [10, 60],
  setC: [100, 480],
  motionRadiusMm: 2.5,
  irons: [],
  plate: { maxSetC: 250, capC: 230, lagS: 60 },
  doubt: 0.12,
};

/** The multiplier at a flow. */
export function multiplierAt({ multiplier, multiplierByFlow }: Station, flowLpm: number): number {
  const known = [...multiplierByFlow].sort((a, b) => a.flowLpm - b.flowLpm);
  const above = known.findIndex((k) => k.flowLpm >= flowLpm);
  if (above <= 0) return known.at(above)?.multiplier ?? multiplier;
  const [a, b] = [known[above - 1], known[above]];
  return a.multiplier + ((flowLpm - a.flowLpm) / (b.flowLpm - a.flowLpm)) * (b.multiplier - a.multiplier);
}

/** Share of the set excess that a plate reaches: 235 °C set gives 226 °C (prototype measurement). */
const PLATE_REACH = 0.9577;

/** Steady surface temperature of a plate, °C. */
export function plateSteadyC(setC: number, ambientC: number, capC: number): number {
  return Math.min(capC, ambientC + PLATE_REACH * (setC - ambientC));
}

/** Outlet temperature that a dial settles on at a flow, °C. */
export const outletSteadyC = (station: Station, setC: number, flowLpm: number, ambientC: number): number =>
  ambientC + efficiencyAt(station, flowLpm) * (setC - ambientC);

/** No outlet is hotter than its dial by more than this. */
const MOST_EFFICIENCY = 1.1;

function efficiencyAt({ outletEfficiency, efficiencyByFlow }: Station, flowLpm: number): number {
  if (!efficiencyByFlow || flowLpm <= 0) return outletEfficiency;
  const { exponent, atFlowLpm } = efficiencyByFlow;
  return Math.min(MOST_EFFICIENCY, outletEfficiency * (flowLpm / atFlowLpm) ** exponent);
}

/** A station with another multiplier, at all flows in the same measure. */
export function withMultiplier(station: Station, multiplier: number): Station {
  const scale = multiplier / station.multiplier;
  const multiplierByFlow = station.multiplierByFlow.map((k) => ({ ...k, multiplier: k.multiplier * scale }));
  return { ...station, multiplier, multiplierByFlow };
}
