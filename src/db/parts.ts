import { asc, eq } from 'drizzle-orm';
import {
  partFamilySchema,
  partTypeSchema,
  reportSchema,
  type PartFamily,
  type PartType,
  type Report,
} from '../core/parts';
import { readRows, type UnreadableRow } from './readable';
import { evidence, partFamilies, partTypes } from './schema';
import type { Session } from './session';

export async function listPartTypes(db: Session, marks?: UnreadableRow[]): Promise<PartType[]> {
  const rows = await db.select().from(partTypes).orderBy(asc(partTypes.id));
  return readRows(
    'part_types',
    rows,
    (r) => r.id,
    (r) => partTypeSchema.parse(JSON.parse(r.json)),
    marks,
  );
}

/** Adds a part type, or replaces the one of the same name. It has been checked before. */
export async function savePartType(db: Session, type: PartType): Promise<void> {
  const json = JSON.stringify(type);
  await db.insert(partTypes).values({ id: type.id, json }).onConflictDoUpdate({ target: partTypes.id, set: { json } });
}

export async function listPartFamilies(db: Session, marks?: UnreadableRow[]): Promise<PartFamily[]> {
  const rows = await db.select().from(partFamilies).orderBy(asc(partFamilies.id));
  return readRows(
    'part_families',
    rows,
    (r) => r.id,
    (r) => partFamilySchema.parse(JSON.parse(r.json)),
    marks,
  );
}

export async function savePartFamily(db: Session, family: PartFamily): Promise<void> {
  const json = JSON.stringify(family);
  await db
    .insert(partFamilies)
    .values({ id: family.id, json })
    .onConflictDoUpdate({ target: partFamilies.id, set: { json } });
}

/** Compatibility reports, oldest entry first; of one board where it is given. */
export async function listReports(db: Session, boardId?: string, marks?: UnreadableRow[]): Promise<Report[]> {
  const rows = await db
    .select()
    .from(evidence)
    .where(boardId === undefined ? undefined : eq(evidence.boardId, boardId))
    .orderBy(asc(evidence.id));
  return readRows(
    'evidence',
    rows,
    (r) => r.id,
    (r) => reportSchema.parse(JSON.parse(r.json)),
    marks,
  );
}

/** Keeps a report; the same key again is not stored twice. */
export async function addReport(db: Session, report: Report, key: string, at: string): Promise<void> {
  const { typeId, boardId } = report;
  await db
    .insert(evidence)
    .values({ key, typeId, boardId, json: JSON.stringify(report), addedAt: at })
    .onConflictDoNothing({ target: evidence.key });
}

export async function isReported(db: Session, key: string): Promise<boolean> {
  const rows = await db.select({ id: evidence.id }).from(evidence).where(eq(evidence.key, key));
  return rows.length > 0;
}

/** Takes a report back, by the key that it was entered with. */
export async function dropReport(db: Session, key: string): Promise<void> {
  await db.delete(evidence).where(eq(evidence.key, key));
}
