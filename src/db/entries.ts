import { eq } from 'drizzle-orm';
import { entries } from './schema';
import type { Session } from './session';

export type EntryRow = typeof entries.$inferSelect;

/** What was answered under a key before; undefined for a new one. */
export async function findEntry(db: Session, key: string): Promise<EntryRow | undefined> {
  const [row] = await db.select().from(entries).where(eq(entries.key, key));
  return row;
}

export async function addEntry(db: Session, entry: EntryRow): Promise<void> {
  await db.insert(entries).values(entry);
}
