import type { JobNumber } from '../../core/identities';
import {
  choiceOf,
  placeToFill,
  refusedRoute,
  setAside,
  withChip,
  type ChoiceView,
  type ChoiceWorld,
  type RouteView,
} from '../../core/choice';
import {
  record,
  TYPED,
  withOrigin,
  type ChosenRoute,
  type EventBody,
  type JobCommand,
  type JobView,
} from '../../core/job';
import { sourcingDefaults } from '../../core/sourcing';
import { foldStock, supplyId, supplyLabel, type StockState } from '../../core/stock';
import { listBoards } from '../../db/boards';
import type { Database } from '../../db/client';
import type { EntryMeta } from '../../db/jobs';
import { findSourcing } from '../../db/knowledge';
import { listPartFamilies, listPartTypes, listReports } from '../../db/parts';
import type { Session } from '../../db/session';
import { appendStock, stockEventsOf } from '../../db/stock';
import { refused, refusedFor, saved, type ActionResult, type Or } from '../action-result';
import { now } from '../entrant';
import { oncePrepared } from '../once';
import { carryOut } from './execute';
import { loadJob, loadRecord } from './load-job';

/** Parts, reports, stock and settings as they are now. */
async function loadChoiceWorld(db: Session): Promise<ChoiceWorld> {
  const [types, families, reports, events, boards, practice] = await Promise.all([
    listPartTypes(db),
    listPartFamilies(db),
    listReports(db),
    stockEventsOf(db),
    listBoards(db),
    findSourcing(db),
  ]);
  const byId = new Map(boards.map((b) => [b.id, b]));
  return { types, families, reports, practice, stock: foldStock(events), boards: byId, now: now() };
}

/** The ways to fill the place that a job is about; undefined where no part type matters there. */
export async function loadChoice(db: Session, job: JobView): Promise<ChoiceView | undefined> {
  const slot = placeToFill(job);
  return slot && choiceOf(job, slot, await loadChoiceWorld(db));
}

/** The resistors that straps are made of at this bench, and what each part type reads out of a divider. */
export async function loadStraps(db: Session) {
  const [practice, types] = await Promise.all([findSourcing(db), listPartTypes(db)]);
  const codes = types.flatMap(({ id, strapCode }) => (strapCode ? [{ typeId: id, ...strapCode }] : []));
  return { ...sourcingDefaults(practice), drawerOhm: practice.drawerOhm ?? [], codes };
}

const typed = (body: EventBody): JobCommand => withOrigin(record(body), TYPED);

interface Wanted {
  readonly version: number;
  readonly decided?: ChosenRoute['ref'];
  readonly route?: RouteView;
  readonly body: ChosenRoute;
}

/**
 * Chooses the chip for the place that the job is about: sets it aside in the stock where it lies there, and keeps it as the
 * job's plan, both or neither. Of two jobs that want one chip the second gets a sentence, and its job stays as it was.
 */
export function chooseChip(db: Database, number: JobNumber, offer: string, key: string): Promise<ActionResult> {
  return oncePrepared(
    db,
    { key, scope: `job ${number}`, request: { choose: offer } },
    (before) => wantedOf(before, number, offer),
    async (tx, meta, wanted) => (wanted.ok ? choose(tx, number, wanted.value, meta) : wanted.answer),
  );
}

async function wantedOf(db: Session, number: JobNumber, offer: string): Promise<Or<Wanted>> {
  const none = (answer: ActionResult): Or<Wanted> => ({ ok: false, answer });
  const job = await loadJob(db, number);
  if (!job.ok) return none(refusedFor(job.problems, 'notFound'));
  const choice = await loadChoice(db, job.value);
  if (!choice) return none(refused(`Expected a job with a place to fill; job ${number} has none.`));
  const route = choice.routes.find((r) => r.offer === offer);
  const body = offer === supplyId({ kind: 'none' }) ? choice.leaveOff : route?.chosen;
  if (!body) return none(refused(`Expected a chip that can be had; ${offer} is not there any more.`));
  const why = route && refusedRoute(route);
  if (why) return none(refused(why));
  const { decision } = job.value.state;
  const decided = decision?.action === 'replace' && decision.ref !== null ? decision.ref : undefined;
  return { ok: true, value: { version: job.value.version, decided, route, body } };
}

async function choose(tx: Session, number: JobNumber, wanted: Wanted, meta: EntryMeta): Promise<ActionResult> {
  const job = await loadRecord(tx, number);
  if (!job.ok) return refusedFor(job.problems, 'notFound');
  if ((job.value.events.at(-1)?.seq ?? 0) !== wanted.version)
    return refused(`Expected job ${number} as it was shown; something was entered meanwhile.`, 'changedMeanwhile');
  // A training job takes nothing out of the stock.
  const moves = job.value.row.training ? [] : (state: StockState) => setAside(state, number, wanted.route);
  const stock = await appendStock(tx, moves, { ...meta, key: `stock ${meta.key}` });
  if (!stock.ok) return refusedFor(stock.problems);
  const body = withChip(
    wanted.body,
    stock.value.map((e) => e.body),
  );
  if (wanted.decided !== body.ref) {
    const forGood = body.typeId === 'none' && { forGood: true };
    const decision = typed({ kind: 'decision', action: 'replace', ref: body.ref, ...forGood });
    const decided = await carryOut(tx, job.value, decision, '', { ...meta, key: `decision ${meta.key}` });
    if (!decided.saved) return decided;
  }
  const again = await loadRecord(tx, number);
  if (!again.ok) return refusedFor(again.problems);
  const kept = await carryOut(tx, again.value, typed(body), '', meta);
  return kept.saved ? saved(`Chosen: ${body.typeId}, ${supplyLabel(body.supply)}`, { seq: kept.seq }) : kept;
}
