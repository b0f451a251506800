import { and, asc, eq, sql } from 'drizzle-orm';
import { goalSetsSchema, type GoalSets } from '../core/heat';
import { DEFAULT_PRACTICE, practiceFromStored, practiceToStored, type Practice } from '../core/diagnose';
import { reportWordsSchema, type BenchKnowledge, type ReportWords } from '../core/job';
import { sitePracticeSchema, type SitePractice } from '../core/joints';
import { sourcingPracticeSchema, type SourcingPractice } from '../core/sourcing';
import { referenceTable, type ReferenceReading } from '../core/reference';
import type { Database } from './client';
import { references, settings } from './schema';

const PRACTICE = 'practice';
const SOURCING = 'sourcing';
const GOALS = 'heat goals';
const SITES = 'site practice';
const REPORT = 'report words';

async function findSetting(db: Database, name: string): Promise<unknown> {
  const [row] = await db.select().from(settings).where(eq(settings.name, name));
  return row && JSON.parse(row.json);
}

async function saveSetting(db: Database, name: string, value: unknown): Promise<void> {
  const json = JSON.stringify(value);
  await db.insert(settings).values({ name, json }).onConflictDoUpdate({ target: settings.name, set: { json } });
}

/** What this bench has settled for itself; the defaults where it has settled nothing. */
export async function findPractice(db: Database): Promise<Practice> {
  const stored = await findSetting(db, PRACTICE);
  return stored ? practiceFromStored(stored) : DEFAULT_PRACTICE;
}

export const savePractice = (db: Database, practice: Practice): Promise<void> =>
  saveSetting(db, PRACTICE, practiceToStored(practice));

/** What this bench has settled for finding chips. */
export const findSourcing = async (db: Database): Promise<SourcingPractice> =>
  sourcingPracticeSchema.parse((await findSetting(db, SOURCING)) ?? {});

export const saveSourcing = (db: Database, practice: SourcingPractice): Promise<void> =>
  saveSetting(db, SOURCING, practice);

/** What this bench asks of heat plans, alloy by alloy. */
export const findGoals = async (db: Database): Promise<GoalSets> =>
  goalSetsSchema.parse((await findSetting(db, GOALS)) ?? {});

export const saveGoals = (db: Database, goals: GoalSets): Promise<void> => saveSetting(db, GOALS, goals);

/** How this bench makes sites ready. */
export const findSitePractice = async (db: Database): Promise<SitePractice> =>
  sitePracticeSchema.parse((await findSetting(db, SITES)) ?? {});

export const saveSitePractice = (db: Database, practice: SitePractice): Promise<void> =>
  saveSetting(db, SITES, practice);

/** How this shop's reports read. */
export const findReportWords = async (db: Database): Promise<ReportWords> =>
  reportWordsSchema.parse((await findSetting(db, REPORT)) ?? {});

export const saveReportWords = (db: Database, words: ReportWords): Promise<void> => saveSetting(db, REPORT, words);

/** Reference readings of a board, oldest first. */
export async function listReferences(db: Pick<Database, 'select'>, boardId: string): Promise<ReferenceReading[]> {
  const rows = await db.select().from(references).where(eq(references.boardId, boardId)).orderBy(asc(references.id));
  return rows.map(({ point, value, source }) => ({ boardId, point, value, source }));
}

/** Rows per statement: SQLite takes a limited number of values at once. */
const BATCH = 500;

/** Keeps readings; the same point from the same source is kept once, with its newest value. */
export async function keepReferences(db: Database, readings: readonly ReferenceReading[], at: string): Promise<void> {
  await db.transaction(async (tx) => {
    for (let from = 0; from < readings.length; from += BATCH) {
      await tx
        .insert(references)
        .values(readings.slice(from, from + BATCH).map((r) => ({ ...r, addedAt: at })))
        .onConflictDoUpdate({
          target: [references.boardId, references.point, references.source],
          set: { value: sql`excluded.value` },
        });
    }
  });
}

/** Takes back the readings that came from one source, such as `job 27`. */
export async function dropReferences(db: Database, boardId: string, source: string): Promise<void> {
  await db.delete(references).where(and(eq(references.boardId, boardId), eq(references.source, source)));
}

/** What a bench knows beside a board's file and a job's own readings. */
export async function knowledgeOf(db: Database, boardId: string): Promise<BenchKnowledge> {
  const [practice, readings] = await Promise.all([findPractice(db), listReferences(db, boardId)]);
  return { practice, references: referenceTable(readings) };
}
