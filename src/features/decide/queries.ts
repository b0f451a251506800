import 'server-only';
import type { JobView } from '@/core/job';
import { sourcingDefaults } from '@/core/sourcing';
import { foldStock } from '@/core/stock';
import { listBoards } from '@/db/boards';
import { database } from '@/db/client';
import { findSourcing } from '@/db/knowledge';
import { listPartFamilies, listPartTypes, listReports } from '@/db/parts';
import { stockEventsOf } from '@/db/stock';
import { choiceOf, placeToFill, type ChoiceView, type ChoiceWorld } from './choice';

/** Parts, reports, stock and settings as they are now. */
export async function loadChoiceWorld(): Promise<ChoiceWorld> {
  const db = await database();
  const [types, families, reports, events, boards, practice] = await Promise.all([
    listPartTypes(db),
    listPartFamilies(db),
    listReports(db),
    stockEventsOf(db),
    listBoards(db),
    findSourcing(db),
  ]);
  return {
    types,
    families,
    reports,
    practice,
    stock: foldStock(events),
    boards: new Map(boards.map((b) => [b.id, b])),
    now: new Date().toISOString(),
  };
}

/** The ways to fill the place that this job is about; undefined where no part type matters there. */
export async function loadChoice(job: JobView): Promise<ChoiceView | undefined> {
  const slot = placeToFill(job);
  return slot && choiceOf(job, slot, await loadChoiceWorld());
}

/** The resistors that straps are made of at this bench, and what each part type reads out of a divider. */
export async function loadStraps() {
  const db = await database();
  const [practice, types] = await Promise.all([findSourcing(db), listPartTypes(db)]);
  const codes = types.flatMap(({ id, strapCode }) => (strapCode ? [{ typeId: id, ...strapCode }] : []));
  return { ...sourcingDefaults(practice), drawerOhm: practice.drawerOhm ?? [], codes };
}
export type Straps = Awaited<ReturnType<typeof loadStraps>>;
