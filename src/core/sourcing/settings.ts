import { z } from 'zod';
import { SOURCE_WEIGHT } from '../parts';
import { E_SERIES, E_TOLERANCE, resistorsBetween, type ESeries } from '../units';

const weight = z.number().min(0).max(5);

/** What a bench settles for finding chips; what is left out keeps its default. */
export const sourcingPracticeSchema = z.object({
  weights: z
    .object({ own: weight.optional(), mate: weight.optional(), hearsay: weight.optional() })
    .default({})
    .describe('how much a report counts by where it comes from'),
  strapSeries: z.enum(E_SERIES).optional().describe('the series that straps are chosen from'),
  drawerOhm: z
    .array(z.number().min(1).max(1e7))
    .max(400)
    .optional()
    .describe('resistors in the drawer; straps are then made of these only'),
  strapTolerance: z.number().min(0.001).max(0.2).optional().describe('share by which a strap may be off'),
  unprovenDonors: z.boolean().optional().describe('donors that nobody has seen work may be planned with'),
});
export type SourcingPractice = z.infer<typeof sourcingPracticeSchema>;

/** Straps are usually chosen finer than they must be. Common practice, no source. */
export const STRAP_SERIES = 'E24';
/** Straps are soldered with 1 % parts. Common practice, no source. */
export const STRAP_TOLERANCE = 0.01;
/** Resistances that are looked through for a strap. Engineering estimate: below is waste, above is leakage. */
const STRAP_BOUNDS_OHM = [1000, 1e6] as const;

/** The values of a series that straps are chosen from, ohm. */
export const strapValues = (series: ESeries): number[] => resistorsBetween(series, ...STRAP_BOUNDS_OHM);

/** The settings with their defaults filled in. */
export function sourcingDefaults(practice: SourcingPractice) {
  const { weights, strapSeries = STRAP_SERIES, drawerOhm, strapTolerance = STRAP_TOLERANCE } = practice;
  return {
    weights: { ...SOURCE_WEIGHT, ...weights },
    strapSeries,
    strapTolerance,
    strapValues: drawerOhm?.length ? drawerOhm : strapValues(strapSeries),
    fromDrawer: Boolean(drawerOhm?.length),
    unprovenDonors: practice.unprovenDonors ?? false,
    seriesTolerance: E_TOLERANCE[strapSeries],
  };
}
