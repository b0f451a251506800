import type { JobNumber, PartRef } from '../../core/identities';
import { costAlone, type AllocationProblem, type AloneCost } from '../../core/allocation';
import type { Board } from '../../core/board';
import { DEAD_ON_ARRIVAL, HOUR_PRICE } from '../../core/diagnose';
import { foldJob, type JobState } from '../../core/job';
import type { PartType } from '../../core/parts';
import { queueProblem, sourcingDefaults, wayKey, type QueueNeed, type SourcingSettings } from '../../core/sourcing';
import {
  foldStock,
  hoursOf,
  jobsNamedBy,
  lotArrivals,
  originLabel,
  parseStockEntry,
  reorderPoints,
  type StockBody,
  type StockEvent,
  type StockState,
  type StockWorld,
} from '../../core/stock';
import { findBoard, listBoards } from '../../db/boards';
import type { Database } from '../../db/client';
import { openJobsThatReplace, refreshSummaries } from '../../db/job-summaries';
import { findJob } from '../../db/jobs';
import { findPractice, findSourcing } from '../../db/knowledge';
import { listPartFamilies, listPartTypes, listReports } from '../../db/parts';
import type { UnreadableRow } from '../../db/readable';
import type { Session } from '../../db/session';
import { appendStock, stockEventsOf } from '../../db/stock';
import { refused, refusedFor, saved, type ActionResult } from '../action-result';
import { withLead } from '../access/needs-lead';
import { now } from '../entrant';
import { once } from '../once';

interface Loaded {
  readonly types: readonly PartType[];
  readonly events: readonly StockEvent[];
  readonly boards: ReadonlyMap<string, Board>;
  readonly state: StockState;
  readonly unreadable: readonly UnreadableRow[];
}

async function load(db: Session): Promise<Loaded> {
  const unreadable: UnreadableRow[] = [];
  const [types, events, boards] = await Promise.all([
    listPartTypes(db, unreadable),
    stockEventsOf(db, unreadable),
    listBoards(db),
  ]);
  return { types, events, boards: new Map(boards.map((b) => [b.id, b])), state: foldStock(events), unreadable };
}

const worldOf = ({ state, types, boards }: Loaded): StockWorld => ({
  state,
  types: types.map(({ id, partner }) => ({ id, partner })),
  boards: [...boards.values()].map(({ id, slots }) => ({ id, slots })),
});

/** What the entry line needs to read a line before it is kept. */
export const loadStockWorld = async (db: Session): Promise<StockWorld> => worldOf(await load(db));

/** Reads a typed line of the stock where it is kept, and appends what follows from it. */
export function enterStockLine(db: Database, text: string, key: string): Promise<ActionResult> {
  return once(db, { key, scope: 'stock', request: text }, async (tx, meta) => {
    const entry = parseStockEntry(worldOf(await load(tx)), text);
    if (!entry.ok) return refusedFor(entry.problems, 'badInput');
    const training = await trainingJobOf(tx, entry.value.bodies);
    if (training !== undefined)
      return refused(`Expected a real job: ${training} is for training, and nothing of it moves the stock.`);
    const allowed = await withLead(tx, entry.value.bodies, meta);
    if ('answer' in allowed) return allowed.answer;
    const stored = await appendStock(tx, entry.value.bodies, allowed.meta);
    return stored.ok ? saved(entry.value.echo, { seq: stored.value.at(-1)?.seq }) : refusedFor(stored.problems);
  });
}

/** The first training job that stock events speak of. */
async function trainingJobOf(tx: Session, bodies: readonly StockBody[]): Promise<number | undefined> {
  for (const job of jobsNamedBy(bodies)) if ((await findJob(tx, job))?.training) return job;
  return undefined;
}

/** Everything that the shelf is shown from, as it is now. */
export async function loadShelfFacts(db: Session) {
  const { types, events, boards, state, unreadable } = await load(db);
  const { deadOnArrival = DEAD_ON_ARRIVAL } = await findPractice(db);
  const at = now();
  return {
    ...{ state, boards, unreadable, types: new Map(types.map((t) => [t.id, t])) },
    nowH: hoursOf(at),
    arrivals: new Map(lotArrivals(events, deadOnArrival).map((a) => [a.lot, a])),
    reorders: reorderPoints(state, events, types, at),
    version: events.at(-1)?.seq ?? 0,
  };
}

export interface PlanNeed {
  readonly id: string;
  readonly job: JobNumber;
  readonly words: string;
  /** Why no chip could be found at all, where that is so. */
  readonly missing?: string;
}

/** The queue as the plan's worker takes it, with what the answer is told in. */
export interface QueuePlan {
  readonly problem: AllocationProblem;
  readonly needs: readonly PlanNeed[];
  readonly alone: AloneCost;
  /** What each way is, by need and supply. */
  readonly ways: Readonly<
    Record<string, { readonly typeId: string; readonly words: string; readonly actions: readonly string[] }>
  >;
  /** Jobs with a chip set aside already. */
  readonly served: readonly string[];
}

/** Every open job that waits for a chip, with all ways to serve it. */
export async function loadQueuePlan(db: Session): Promise<QueuePlan> {
  await refreshSummaries(db);
  const { types, boards, state } = await load(db);
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
    const board = await findBoard(db, row.boardId, row.boardRevision);
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
    nowH: hoursOf(now()),
    hourPrice: practice.prices?.hour ?? HOUR_PRICE,
  };
  const { problem, missing, routes } = queueProblem(queue, { types, stock: state, boards }, reports, settings);
  const ways = problem.options.map(({ need, supply }) => {
    const { offer, fit } = routes.get(need)!.find((r) => r.offer.id === supply)!;
    const actions = fit.actions.filter((a) => a.kind !== 'verify').map((a) => a.words);
    return [wayKey(need, supply), { typeId: offer.candidate.type.id, words: offer.summary, actions }] as const;
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
function waitingSlot<S extends { readonly ref: PartRef }>(
  { decision, replaced, route, closed }: JobState,
  slots: readonly S[],
): S | undefined {
  if (closed || decision?.action !== 'replace' || decision.ref === null) return undefined;
  if (replaced.includes(decision.ref) || route?.typeId === 'none') return undefined;
  return slots.find((s) => s.ref === decision.ref);
}

function bagOf({ chips }: StockState, job: JobNumber): string | undefined {
  const chip = [...chips.values()].find((c) => c.place.kind === 'bag' && c.place.job === job);
  return chip && `${chip.id}, ${chip.typeId}, from ${originLabel(chip)}`;
}
