import 'server-only';
import { costAlone } from '@/core/allocation';
import { DEAD_ON_ARRIVAL, HOUR_PRICE } from '@/core/diagnose';
import { foldJob, type JobState } from '@/core/job';
import { queueProblem, sourcingDefaults, type QueueNeed, type SourcingSettings } from '@/core/sourcing';
import { foldStock, hoursOf, lotArrivals, reorderPoints, type StockState, type StockWorld } from '@/core/stock';
import { listBoards } from '@/db/boards';
import { database } from '@/db/client';
import { openJobsThatReplace } from '@/db/jobs';
import { findPractice, findSourcing } from '@/db/knowledge';
import { listPartFamilies, listPartTypes, listReports } from '@/db/parts';
import { stockEventsOf } from '@/db/stock';
import { donorRows, lotRows, originWords, trays } from './shelf';
import { wayKey, type PlanView, type ReorderRow } from './view';

async function loadWorld() {
  const db = await database();
  const [types, events, boards] = await Promise.all([listPartTypes(db), stockEventsOf(db), listBoards(db)]);
  return { db, types, events, boards: new Map(boards.map((b) => [b.id, b])), state: foldStock(events) };
}

/** Lots, trays, donors and what to order, as they are now. */
export async function loadShelf() {
  const { db, types, events, boards, state } = await loadWorld();
  const { deadOnArrival = DEAD_ON_ARRIVAL } = await findPractice(db);
  const now = new Date().toISOString();
  const byId = new Map(types.map((t) => [t.id, t]));
  const reorders = reorderPoints(state, events, types, now)
    .filter((r) => r.used > 0 || r.order)
    .map((r): ReorderRow => ({ ...r, what: byId.get(r.typeId)?.what ?? '' }));
  return {
    lots: lotRows(state, byId, hoursOf(now)),
    arrivals: new Map(lotArrivals(events, deadOnArrival).map((a) => [a.lot, a])),
    trays: trays(state, byId, hoursOf(now)),
    donors: donorRows(state, boards),
    reorders,
    version: events.at(-1)?.seq ?? 0,
  };
}
export type Shelf = Awaited<ReturnType<typeof loadShelf>>;

/** What the entry line needs to read a line before it is kept. */
export async function loadStockWorld(): Promise<StockWorld> {
  const { types, boards, state } = await loadWorld();
  return {
    state,
    types: types.map(({ id, partner }) => ({ id, partner })),
    boards: [...boards.values()].map(({ id, slots }) => ({ id, slots })),
  };
}

/** Every open job that waits for a chip, with all ways to serve it. */
export async function loadPlan(): Promise<PlanView> {
  const { db, types, boards, state } = await loadWorld();
  const [families, reports, practice, sourcing, jobs] = await Promise.all([
    listPartFamilies(db),
    listReports(db),
    findPractice(db),
    findSourcing(db),
    openJobsThatReplace(db),
  ]);
  const queue: QueueNeed[] = [];
  const served: string[] = [];
  for (const { row, events } of jobs) {
    const { number } = row;
    const board = boards.get(row.boardId);
    const job = foldJob(events);
    const slot = board && waitingSlot(job, board.slots);
    if (!slot) continue;
    const bagged = bagOf(state, number);
    if (bagged) {
      served.push(`Job ${number}, ${slot.ref}: ${bagged}`);
      continue;
    }
    const built = types.find((t) => t.id === slot.type);
    const family = families.find((f) => f.id === built?.family);
    queue.push({ job: number, need: { board, slot, built, family, imageSound: job.images.patient?.sound } });
  }
  const settings: SourcingSettings = {
    ...sourcingDefaults(sourcing),
    nowH: hoursOf(new Date().toISOString()),
    hourPrice: practice.prices?.hour ?? HOUR_PRICE,
  };
  const { problem, missing, routes } = queueProblem(queue, { types, stock: state, boards }, reports, settings);
  const ways = problem.options.map(({ need, supply }) => {
    const { offer, fit } = routes.get(need)!.find((r) => r.offer.id === supply)!;
    const actions = fit.actions.filter((a) => a.kind !== 'verify').map((a) => a.words);
    return [wayKey(need, supply), { typeId: offer.candidate.type.id, words: offer.words, actions }] as const;
  });
  return {
    problem,
    needs: problem.needs.map((n) => ({ ...n, missing: missing.get(n.id) })),
    alone: costAlone(problem),
    ways: Object.fromEntries(ways),
    served,
  };
}

/** The place that an open job waits to fill: decided, and no new part on it yet. */
function waitingSlot<S extends { readonly ref: string }>(
  { decision, replaced, route, closed }: JobState,
  slots: readonly S[],
): S | undefined {
  if (closed || decision?.action !== 'replace' || decision.ref === null) return undefined;
  if (replaced.includes(decision.ref) || route?.typeId === 'none') return undefined;
  return slots.find((s) => s.ref === decision.ref);
}

function bagOf({ chips }: StockState, job: number): string | undefined {
  const chip = [...chips.values()].find((c) => c.place.kind === 'bag' && c.place.job === job);
  return chip && `${chip.id}, ${chip.typeId}, from ${originWords(chip)}`;
}
