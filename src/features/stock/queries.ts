import 'server-only';
import * as stock from '@/application/stock/stock';
import { database } from '@/db/client';
import { donorRows, lotRows, trays } from './shelf';
import type { ReorderRow } from './view';

/** Lots, trays, donors and what to order, as they are now. */
export async function loadShelf() {
  const { state, boards, types, nowH, reorders, arrivals, version, unreadable } = await stock.loadShelfFacts(
    await database(),
  );
  return {
    lots: lotRows(state, types, nowH),
    trays: trays(state, types, nowH),
    donors: donorRows(state, boards),
    reorders: reorders
      .filter((r) => r.used > 0 || r.order)
      .map((r): ReorderRow => ({ ...r, what: types.get(r.typeId)?.what ?? '' })),
    ...{ arrivals, version, unreadable },
  };
}
export type Shelf = Awaited<ReturnType<typeof loadShelf>>;

/** What the entry line needs to read a line before it is kept. */
export const loadStockWorld = async () => stock.loadStockWorld(await database());

/** Every open job that waits for a chip, with all ways to serve it. */
export const loadPlan = async () => stock.loadQueuePlan(await database());
