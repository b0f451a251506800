import type { JobNumber, PartRef } from '../identities';
import type {
  AllocationNeed,
  AllocationOption,
  AllocationPlan,
  AllocationProblem,
  DonorOffer,
  Supply,
} from '../allocation';
import type { Need, Report } from '../parts';
import type { Supplies } from './offers';
import { OPEN_DONOR_MINUTES, goes, routesFor, type Route, type SourcingSettings } from './routes';

/** One place in an open job that waits for a chip. */
export interface QueueNeed {
  readonly job: JobNumber;
  readonly need: Need;
}

export interface Queue {
  readonly problem: AllocationProblem;
  /** Why the needs that have no way at all have none, by need. */
  readonly missing: ReadonlyMap<string, string>;
  readonly routes: ReadonlyMap<string, readonly Route[]>;
}

/** Doing a placement over when the chip did not work: off, clean, on, prove. Engineering estimate. */
const REDO_MINUTES = 60;
/** What a day of waiting for a part costs, in minutes of the bench. Engineering estimate: a bag to keep and a call to answer. */
const DAY_MINUTES = 1;

export const needIdOf = (job: JobNumber, ref: PartRef): string => `${job} ${ref}`;

/** The queue as a problem of allocation: which chips could serve which place, and what each way is expected to cost. */
export function queueProblem(
  queue: readonly QueueNeed[],
  supplies: Supplies,
  reports: readonly Report[],
  settings: SourcingSettings,
): Queue {
  const perMinute = settings.hourPrice / 60;
  const routes = new Map<string, readonly Route[]>();
  const used = new Map<string, Supply>();
  const options: AllocationOption[] = [];
  for (const { job, need: place } of queue) {
    const { ref } = place.slot;
    const need = needIdOf(job, ref);
    const all = routesFor(place, supplies, reports, settings, job);
    routes.set(need, all);
    for (const route of all.filter(goes)) {
      const { offer, fit } = route;
      used.set(offer.id, {
        id: offer.id,
        words: offer.summary,
        count: offer.count,
        donor: donorToOpen(route, supplies),
      });
      const failure = (1 - fit.success.mean) * REDO_MINUTES;
      const actions = fit.actions.reduce((sum, a) => sum + a.minutes, 0);
      const minutes = offer.minutes + actions + failure + offer.days * DAY_MINUTES;
      const cost = offer.price + minutes * perMinute + (isElsewhere(route, ref) ? TIE : 0);
      options.push({ need, supply: offer.id, cost, chance: fit.success.mean });
    }
  }
  const donors: DonorOffer[] = [...supplies.stock.donors.values()]
    .filter((d) => !d.opened && [...used.values()].some((s) => s.donor === d.id))
    .map((d) => ({ id: d.id, words: `donor ${d.id}`, cost: d.price + OPEN_DONOR_MINUTES * perMinute }));
  const needs = queue.map(({ job, need: { slot, board } }): AllocationNeed => ({
    id: needIdOf(job, slot.ref),
    job,
    words: `Job ${job}, ${slot.ref}: ${board.parts.find((p) => p.ref === slot.ref)!.what}`,
  }));
  const missing = new Map(
    needs.filter((n) => !options.some((o) => o.need === n.id)).map((n) => [n.id, missingWords(routes.get(n.id)!)]),
  );
  return { problem: { needs, supplies: [...used.values()], donors, options }, missing, routes };
}

/** Among chips that cost the same, the one from the same place is taken: enough to decide, too little to change a plan. */
const TIE = 0.001;
const isElsewhere = ({ offer }: Route, ref: PartRef): boolean =>
  offer.supply.kind === 'donor' && offer.supply.ref !== ref;

/** An opened donor costs nothing more to open: its chips count as loose. */
function donorToOpen({ offer: { supply } }: Route, { stock }: Supplies): string | undefined {
  return supply.kind === 'donor' && !stock.donors.get(supply.donor)!.opened ? supply.donor : undefined;
}

/** Why nothing goes: the nearest thing to a way, and what holds it back. */
function missingWords(routes: readonly Route[]): string {
  const held = routes.find(
    (r) => r.held !== undefined && r.fit.verdict !== 'doesNotFit' && r.fit.verdict !== 'notTried',
  );
  if (held) return `${held.offer.candidate.type.id} would go: ${held.held}`;
  const untried = routes.find((r) => r.fit.verdict === 'notTried');
  if (untried) {
    const cell = untried.fit.cells.find((c) => c.outcome === 'unknown' || c.outcome === 'untried')!;
    return `${untried.offer.candidate.type.id} is not tried here: ${cell.reason}`;
  }
  const [first] = routes;
  if (!first) return 'no part type of this kind is known';
  const block = first.fit.cells.find((c) => c.outcome === 'blocks')!;
  return `nothing fits; nearest is ${first.offer.candidate.type.id}: ${block.reason}`;
}

/** Why a need that has ways is left all the same. */
export const NEEDED_ELSEWHERE = 'every chip that would go is needed by another job; buy or find one more';

/** Each opened donor with what it gives. */
export function servedBy(
  { supplies }: AllocationProblem,
  plan: AllocationPlan,
): ReadonlyMap<string, readonly AllocationOption[]> {
  const donorOf = new Map(supplies.map((s) => [s.id, s.donor]));
  return new Map(plan.open.map((d) => [d, plan.assigned.filter((o) => donorOf.get(o.supply) === d)]));
}

/** The name of one way to serve one need. */
export const wayKey = (need: string, supply: string): string => `${need} from ${supply}`;
