import { asc, eq } from 'drizzle-orm';
import {
  partFamilySchema,
  partTypeSchema,
  reportSchema,
  type PartFamily,
  type PartType,
  type Report,
} from '../core/parts';
import type { Database } from './client';
import { evidence, partFamilies, partTypes } from './schema';

export async function listPartTypes(db: Database): Promise<PartType[]> {
  const rows = await db.select().from(partTypes).orderBy(asc(partTypes.id));
  return rows.map((row) => partTypeSchema.parse(JSON.parse(row.json)));
}

/** Adds a part type, or replaces the one of the same name. It has been checked before. */
export async function savePartType(db: Database, type: PartType): Promise<void> {
  const json = JSON.stringify(type);
  await db.insert(partTypes).values({ id: type.id, json }).onConflictDoUpdate({ target: partTypes.id, set: { json } });
}

export async function listPartFamilies(db: Database): Promise<PartFamily[]> {
  const rows = await db.select().from(partFamilies).orderBy(asc(partFamilies.id));
  return rows.map((row) => partFamilySchema.parse(JSON.parse(row.json)));
}

export async function savePartFamily(db: Database, family: PartFamily): Promise<void> {
  const json = JSON.stringify(family);
  await db
    .insert(partFamilies)
    .values({ id: family.id, json })
    .onConflictDoUpdate({ target: partFamilies.id, set: { json } });
}

/** Compatibility reports, oldest entry first; of one board where it is given. */
export async function listReports(db: Database, boardId?: string): Promise<Report[]> {
  const rows = await db
    .select()
    .from(evidence)
    .where(boardId === undefined ? undefined : eq(evidence.boardId, boardId))
    .orderBy(asc(evidence.id));
  return rows.map((row) => reportSchema.parse(JSON.parse(row.json)));
}

/** Keeps a report; the same key again is not stored twice. */
export async function addReport(db: Database, report: Report, key: string, at: string): Promise<void> {
  const { typeId, boardId } = report;
  await db
    .insert(evidence)
    .values({ key, typeId, boardId, json: JSON.stringify(report), addedAt: at })
    .onConflictDoNothing({ target: evidence.key });
}

export async function isReported(db: Database, key: string): Promise<boolean> {
  const rows = await db.select({ id: evidence.id }).from(evidence).where(eq(evidence.key, key));
  return rows.length > 0;
}

/** Takes a report back, by the key that it was entered with. */
export async function dropReport(db: Database, key: string): Promise<void> {
  await db.delete(evidence).where(eq(evidence.key, key));
}
