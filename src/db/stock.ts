import { asc, eq } from 'drizzle-orm';
import { fail, ok, problemText, type Result } from '../core/result';
import {
  applyStock,
  checkStock,
  foldStock,
  stockFromText,
  stockToStored,
  type StockBody,
  type StockEvent,
  type StockState,
} from '../core/stock';
import type { Database } from './client';
import type { EntryMeta } from './jobs';
import { stockEvents } from './schema';

function toEvent({ seq, at, bench, actor, body }: typeof stockEvents.$inferSelect): StockEvent {
  const read = stockFromText(body);
  // The stock is one fold: without one of its events nothing in it can be said to be where it is.
  if (!read.ok) throw new Error(`stock event ${seq}: ${problemText(read.problems)}`);
  return { seq, at, bench, actor, body: read.value };
}

/** Everything that happened to the stock, oldest first. */
export async function stockEventsOf(db: Pick<Database, 'select'>): Promise<StockEvent[]> {
  const rows = await db.select().from(stockEvents).orderBy(asc(stockEvents.seq));
  return rows.map(toEvent);
}

/**
 * Appends events that belong together, or none of them: each is held against the stock as the ones before leave it, inside
 * one transaction, so that of many who want one chip one gets it and the others a sentence. The same key again changes nothing.
 * @param made the events, or what makes them out of the stock as it is inside the transaction: new names are free then.
 */
export async function appendStock(
  db: Database,
  made: readonly StockBody[] | ((state: StockState) => readonly StockBody[]),
  meta: EntryMeta,
): Promise<Result<readonly StockEvent[]>> {
  return db.transaction(
    async (tx) => {
      const [known] = await tx.select().from(stockEvents).where(eq(stockEvents.key, meta.key));
      if (known) return ok([toEvent(known)]);
      const state = foldStock(await stockEventsOf(tx));
      const bodies = typeof made === 'function' ? made(state) : made;
      if (bodies.length === 0) return ok([]);
      for (const body of bodies) {
        const refused = checkStock(state, body);
        if (refused) return fail(refused);
        applyStock(state, body, meta.at);
      }
      const rows = await tx
        .insert(stockEvents)
        .values(
          bodies.map((body, i) => ({
            ...meta,
            key: i === 0 ? meta.key : `${meta.key} ${i}`,
            body: JSON.stringify(stockToStored(body)),
          })),
        )
        .returning();
      return ok(rows.map(toEvent));
    },
    { behavior: 'immediate' },
  );
}
