'use server';

import { revalidatePath } from 'next/cache';
import { viewJob, type ChosenRoute, type JobView } from '@/core/job';
import { problemText } from '@/core/result';
import { sourcingPracticeSchema } from '@/core/sourcing';
import { nextId, type StockBody, type StockState } from '@/core/stock';
import { findBoard } from '@/db/boards';
import { database, type Database } from '@/db/client';
import { benchMeta, enter } from '@/db/enter';
import { findJob, jobEventsOf } from '@/db/jobs';
import { findSourcing, knowledgeOf, saveSourcing } from '@/db/knowledge';
import { appendStock } from '@/db/stock';
import { choiceOf, placeToFill, type RouteView } from './choice';
import { loadChoiceWorld } from './queries';

export interface ChoiceAnswer {
  readonly kept: boolean;
  readonly words: string;
}

const no = (words: string): ChoiceAnswer => ({ kept: false, words });

async function viewOf(db: Database, number: number): Promise<JobView | undefined> {
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  if (!job || !board) return undefined;
  return viewJob(number, job.openedAt, board, await jobEventsOf(db, number), await knowledgeOf(db, board.id));
}

/**
 * Chooses the chip for the place that the job is about: sets it aside in the stock where it lies there, and keeps it as the
 * job's plan. Of two jobs that want one chip the second gets a sentence, and its job stays as it was.
 */
export async function chooseRoute(number: number, offer: string, key: string): Promise<ChoiceAnswer> {
  const db = await database();
  const job = await viewOf(db, number);
  const slot = job && placeToFill(job);
  if (!job || !slot) return no(`Expected a job with a place to fill; job ${number} has none.`);
  const choice = choiceOf(job, slot, await loadChoiceWorld());
  const route = choice.routes.find((r) => r.offer === offer);
  const body = offer === 'leave off' ? choice.leaveOff : route?.chosen;
  if (!body) return no(`Expected a chip that can be had; ${offer} is not there any more.`);
  const refused = route && refusal(route);
  if (refused) return no(refused);
  const stored = await appendStock(db, (state) => stockMoves(state, number, route), benchMeta(`stock ${key}`));
  if (!stored.ok) return no(problemText(stored.problems));
  const events = stored.value.map((e) => e.body);
  const kept = await keep(db, job, withChip(body, events), key);
  revalidatePath('/', 'layout');
  return kept;
}

/** What the screen does not offer is refused here too. */
function refusal(route: RouteView): string | undefined {
  if (route.held) return `Expected a chip that may be taken; ${route.held}.`;
  const block = route.cells.find((c) => c.outcome === 'blocks');
  return block && `Expected a chip that fits; ${block.attribute}: ${block.reason}`;
}

async function keep(db: Database, job: JobView, body: ChosenRoute, key: string): Promise<ChoiceAnswer> {
  const { decision } = job.state;
  if (decision?.action !== 'replace' || decision.ref !== body.ref) {
    const words = body.typeId === 'none' ? `${body.ref} off for good` : `New ${body.ref}`;
    const decided = await enter(
      db,
      job.number,
      { kind: 'decision', action: 'replace', ref: body.ref, words },
      `decision ${key}`,
    );
    if (!decided.ok) return no(problemText(decided.problems));
  }
  const stored = await enter(db, job.number, body, key);
  return stored.ok ? { kept: true, words: `Chosen: ${body.typeId}, ${body.words}` } : no(problemText(stored.problems));
}

/** What was set aside for this job goes back; the chosen chip is set aside, with its partners. */
function stockMoves(state: StockState, job: number, route: RouteView | undefined): StockBody[] {
  const waiting = [...state.chips.values()].filter((c) => c.place.kind === 'bag' && c.place.job === job);
  if (waiting.some((c) => c.id === route?.offer)) return [];
  const back = waiting
    .filter((c) => c.origin.kind !== 'job')
    .map(({ id, origin, partners }): StockBody => {
      const to =
        origin.kind === 'donor' ? ({ kind: 'donorTray', donor: origin.donor } as const) : ({ kind: 'drawer' } as const);
      return { kind: 'move', chips: [id, ...partners], to };
    })
    .filter((b, i, all) => all.findIndex((x) => sameChips(x, b)) === i);
  const to = { kind: 'bag', job } as const;
  if (route?.kind === 'chip') {
    const { partners } = state.chips.get(route.offer)!;
    return [...back, { kind: 'move', chips: [route.offer, ...partners], to }];
  }
  if (route?.kind !== 'lot') return back;
  const chip = nextId(state, 'C');
  return [...back, { kind: 'take', lot: route.offer, chip }, { kind: 'move', chips: [chip], to }];
}

/** A part of a lot has a name of its own once it is taken out. */
function withChip(body: ChosenRoute, events: readonly StockBody[]): ChosenRoute {
  const taken = events.find((e) => e.kind === 'take');
  return taken ? { ...body, offer: taken.chip, words: `${taken.chip} of lot ${taken.lot}` } : body;
}

const sameChips = (a: StockBody, b: StockBody): boolean =>
  a.kind === 'move' && b.kind === 'move' && [...a.chips].sort().join() === [...b.chips].sort().join();

/** Keeps which resistors straps are made of. */
export async function keepStrapSettings(input: unknown): Promise<ChoiceAnswer> {
  const db = await database();
  const parsed = sourcingPracticeSchema.partial().safeParse(input);
  if (!parsed.success) return no('Expected resistances from 1 Ω to 10 MΩ and a tolerance from 0.1 to 20 %.');
  await saveSourcing(db, { ...(await findSourcing(db)), ...parsed.data });
  revalidatePath('/', 'layout');
  return { kept: true, words: 'Kept.' };
}
