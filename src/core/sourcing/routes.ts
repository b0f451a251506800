import type { JobNumber } from '../identities';
import { VERDICTS, actionMinutes, judgeFit, type Fit, type FitSettings, type Need, type Report } from '../parts';
import type { StockState } from '../stock';
import { offersOf, type Offer, type Supplies } from './offers';

export interface SourcingSettings extends FitSettings {
  /** What an hour at the bench is worth, in the shop's money. */
  readonly hourPrice: number;
  /** Donors that nobody has seen work may be opened. */
  readonly unprovenDonors?: boolean;
}

/** One chip for one place: whether it goes, what it takes, what it costs. */
export interface Route {
  readonly offer: Offer;
  readonly fit: Fit;
  /** What this chip adds to the repair: getting it off a donor, straps, partner, image. */
  readonly minutes: number;
  /** Money for the chip and the donor that is opened for it alone. */
  readonly price: number;
  /** Price, and the minutes at the bench's hour. */
  readonly cost: number;
  /** Why it may not be taken though it would go, for example an unproven donor. */
  readonly held?: string;
}

/** Opening a donor device up to its board. Engineering estimate. */
export const OPEN_DONOR_MINUTES = 20;

/** All routes to fill a place, best first: by verdict, then by what they cost for each chance of success. */
export function routesFor(
  need: Need,
  supplies: Supplies,
  reports: readonly Report[],
  settings: SourcingSettings,
  job?: JobNumber,
): Route[] {
  const part = need.board.parts.find((p) => p.ref === need.slot.ref)!;
  return offersOf(part.kind, supplies, job)
    .map((offer) => routeOf(need, offer, supplies.stock, reports, settings))
    .sort((a, b) => rank(a) - rank(b) || a.cost / a.fit.success.mean - b.cost / b.fit.success.mean);
}

/** What goes at once, then what is held back, then what nobody tried, then what does not fit. */
const rank = ({ fit, held }: Route): number => {
  const verdict = VERDICTS.indexOf(fit.verdict);
  const goes = verdict < VERDICTS.indexOf('notTried');
  return goes ? Number(held !== undefined) : verdict;
};

function routeOf(
  need: Need,
  offer: Offer,
  stock: StockState,
  reports: readonly Report[],
  settings: SourcingSettings,
): Route {
  const fit = judgeFit(need, offer.candidate, reports, settings);
  const donor = offer.supply.kind === 'donor' ? stock.donors.get(offer.supply.donor) : undefined;
  const opening = donor && !donor.opened ? OPEN_DONOR_MINUTES : 0;
  const minutes = offer.minutes + opening + actionMinutes(fit);
  const price = offer.price + (donor && !donor.opened ? donor.price : 0);
  return {
    offer,
    fit,
    minutes,
    price,
    cost: price + (minutes * settings.hourPrice) / 60,
    held: heldBack(need, offer, donor?.opened ?? false, settings),
  };
}

/** A donor is proven before it is sacrificed, and not taken from where a wanted function failed on it. */
function heldBack(
  { slot }: Need,
  { supply, proven }: Offer,
  opened: boolean,
  { unprovenDonors }: SourcingSettings,
): string | undefined {
  if (supply.kind !== 'donor') return undefined;
  const { donor } = supply;
  const failed = slot.functions.find((fn) => proven?.get(fn) === false);
  if (failed) return `${failed} failed on donor ${donor}`;
  const seen = slot.functions.some((fn) => proven?.get(fn) === true);
  if (seen || unprovenDonors) return undefined;
  return opened ? `nothing was proven on donor ${donor} before it was opened` : `prove donor ${donor} first`;
}

/** True where a route may go into a plan. */
export const goes = ({ fit, held }: Route): boolean =>
  held === undefined && (fit.verdict === 'fits' || fit.verdict === 'fitsAfter');
