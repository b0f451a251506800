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
import type { EntryMeta } from './jobs';
import { readRows, type UnreadableRow } from './readable';
import { stockEvents } from './schema';
import { sealedStockRows } from './seals';
import type { Session } from './session';

function toEvent({ seq, at, bench, actor, body }: typeof stockEvents.$inferSelect): StockEvent {
  const read = stockFromText(body);
  if (!read.ok) throw new Error(problemText(read.problems).replace(/\.$/, ''));
  return { seq, at, bench, actor, body: read.value };
}

/**
 * Everything that happened to the stock, oldest first. A row that cannot be read is marked and left out, and with it every later
 * one that cannot have happened without it.
 */
export async function stockEventsOf(db: Session, marks: UnreadableRow[] = []): Promise<StockEvent[]> {
  const rows = await db.select().from(stockEvents).orderBy(asc(stockEvents.seq));
  const unreadable = marks.length;
  const events = readRows('stock_events', rows, (r) => r.seq, toEvent, marks);
  return marks.length === unreadable ? events : possible(events, marks);
}

function possible(events: readonly StockEvent[], marks: UnreadableRow[]): StockEvent[] {
  const state = foldStock([]);
  return events.filter(({ seq, body, at }) => {
    const refused = checkStock(state, body);
    if (refused)
      marks.push({ table: 'stock_events', id: String(seq), problem: `It rests on a row before it: ${refused}` });
    else applyStock(state, body, at);
    return !refused;
  });
}

/**
 * Appends events that belong together, or none of them: each is held against the stock as the ones before leave it, so that of
 * many who want one chip one gets it and the others a sentence. Call it inside a transaction. The same key again changes nothing.
 * @param made the events, or what makes them out of the stock as it is inside the transaction: new names are free then.
 */
export async function appendStock(
  tx: Session,
  made: readonly StockBody[] | ((state: StockState) => readonly StockBody[]),
  meta: EntryMeta,
): Promise<Result<readonly StockEvent[]>> {
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
  const { at, bench, actor } = meta;
  const entries = await sealedStockRows(
    tx,
    bodies.map((body, i) => ({
      ...{ at, bench, actor },
      key: i === 0 ? meta.key : `${meta.key} ${i}`,
      body: JSON.stringify(stockToStored(body)),
    })),
  );
  const rows = await tx.insert(stockEvents).values(entries).returning();
  return ok(rows.map(toEvent));
}
