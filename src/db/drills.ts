import { asc, desc, eq } from 'drizzle-orm';
import { drills } from './schema';
import type { Session } from './session';

export type DrillRow = typeof drills.$inferSelect;

export async function addDrill(
  db: Session,
  row: Omit<DrillRow, 'id' | 'end' | 'score' | 'regretMinutes'>,
): Promise<number> {
  const [{ id }] = await db.insert(drills).values(row).returning({ id: drills.id });
  return id;
}

export async function findDrill(db: Session, id: number): Promise<DrillRow | undefined> {
  const [row] = await db.select().from(drills).where(eq(drills.id, id));
  return row;
}

export async function saveDrill(db: Session, id: number, change: Partial<DrillRow>): Promise<void> {
  await db.update(drills).set(change).where(eq(drills.id, id));
}

/** The drills of a person, oldest first, and those of everybody, newest first. */
export const drillsOf = (db: Session, person: string): Promise<DrillRow[]> =>
  db.select().from(drills).where(eq(drills.person, person)).orderBy(asc(drills.id));

export const allDrills = (db: Session): Promise<DrillRow[]> => db.select().from(drills).orderBy(desc(drills.id));
