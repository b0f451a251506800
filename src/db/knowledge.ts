import { z } from 'zod';
import type { FilePreset } from '../core/import';
import { createHash } from 'node:crypto';
import { and, asc, count, desc, eq, isNotNull, max, sql } from 'drizzle-orm';
import { goalSetsSchema, type GoalSets } from '../core/heat';
import { DEFAULT_PRACTICE, practiceFromStored, practiceToStored, type Practice } from '../core/diagnose';
import { reportWordsSchema, type BenchKnowledge, type ReportWords } from '../core/job';
import { sitePracticeSchema, type SitePractice } from '../core/joints';
import { sourcingPracticeSchema, type SourcingPractice } from '../core/sourcing';
import { problemText } from '../core/result';
import { referenceTable, type ReferenceReading } from '../core/reference';
import type { BenchPlace } from '../core/units';
import { readText, type UnreadableRow } from './readable';
import { references, settings } from './schema';
import type { Session } from './session';

const PRACTICE = 'practice';
const SOURCING = 'sourcing';
const GOALS = 'heat goals';
const SITES = 'site practice';
const REPORT = 'report words';
const WORLD = 'world';
const PLACE = 'place';
const COPIES = 'copies';
const INSTRUMENTS = 'instruments';
const LEARNING = 'learning';
const BUSINESS = 'business';

/** A setting as its form reads it; one that cannot be read counts as not settled, and is marked. */
async function findSetting<T>(
  db: Session,
  name: string,
  parse: (stored: unknown) => T,
  marks?: UnreadableRow[],
): Promise<T | undefined> {
  const [row] = await db.select().from(settings).where(eq(settings.name, name));
  if (!row) return undefined;
  const read = readText(() => parse(JSON.parse(row.json)));
  if (read.ok) return read.value;
  marks?.push({ table: 'settings', id: name, problem: problemText(read.problems) });
  return undefined;
}

async function saveSetting(db: Session, name: string, value: unknown): Promise<void> {
  const json = JSON.stringify(value);
  await db.insert(settings).values({ name, json }).onConflictDoUpdate({ target: settings.name, set: { json } });
}

/** What this bench has settled for itself; the defaults where it has settled nothing. */
export const findPractice = async (db: Session, marks?: UnreadableRow[]): Promise<Practice> =>
  (await findSetting(db, PRACTICE, practiceFromStored, marks)) ?? DEFAULT_PRACTICE;

export const savePractice = (db: Session, practice: Practice): Promise<void> =>
  saveSetting(db, PRACTICE, practiceToStored(practice));

/** Where the shop's copies go. */
export const findCopySetting = <T>(db: Session, parse: (stored: unknown) => T): Promise<T | undefined> =>
  findSetting(db, COPIES, parse);

const RETENTION = 'retention';

/** How long an owner's data stay; the form is checked by whoever sets it. */
export const findRetention = <T>(db: Session, parse: (stored: unknown) => T): Promise<T | undefined> =>
  findSetting(db, RETENTION, parse);

export const saveRetention = (db: Session, setting: object): Promise<void> => saveSetting(db, RETENTION, setting);

export const saveCopySetting = (db: Session, setting: object): Promise<void> => saveSetting(db, COPIES, setting);

/** What the shop says of instruments: where they may be reached, and how its own speak. */
export const findInstrumentSetting = <T>(db: Session, parse: (stored: unknown) => T): Promise<T | undefined> =>
  findSetting(db, INSTRUMENTS, parse);

export const saveInstrumentSetting = (db: Session, setting: object): Promise<void> =>
  saveSetting(db, INSTRUMENTS, setting);

/** How the shop works and prices; the form is checked by whoever asks. */
export const findBusiness = <T>(db: Session, parse: (stored: unknown) => T): Promise<T | undefined> =>
  findSetting(db, BUSINESS, parse);

export const saveBusiness = (db: Session, business: object): Promise<void> => saveSetting(db, BUSINESS, business);

/** Whether what closed jobs taught is used; it is where nothing was settled. */
export const findLearning = async (db: Session): Promise<{ readonly durations: boolean }> =>
  (await findSetting(db, LEARNING, (json) => z.object({ durations: z.boolean() }).parse(json))) ?? { durations: true };

export const saveLearning = (db: Session, learning: { readonly durations: boolean }): Promise<void> =>
  saveSetting(db, LEARNING, learning);

/** What this bench has settled for finding chips. */
export const findSourcing = async (db: Session, marks?: UnreadableRow[]): Promise<SourcingPractice> =>
  (await findSetting(db, SOURCING, (json) => sourcingPracticeSchema.parse(json), marks)) ??
  sourcingPracticeSchema.parse({});

export const saveSourcing = (db: Session, practice: SourcingPractice): Promise<void> =>
  saveSetting(db, SOURCING, practice);

/** What this bench asks of heat plans, alloy by alloy. */
export const findGoals = async (db: Session, marks?: UnreadableRow[]): Promise<GoalSets> =>
  (await findSetting(db, GOALS, (json) => goalSetsSchema.parse(json), marks)) ?? goalSetsSchema.parse({});

export const saveGoals = (db: Session, goals: GoalSets): Promise<void> => saveSetting(db, GOALS, goals);

/** How this bench makes sites ready. */
export const findSitePractice = async (db: Session, marks?: UnreadableRow[]): Promise<SitePractice> =>
  (await findSetting(db, SITES, (json) => sitePracticeSchema.parse(json), marks)) ?? sitePracticeSchema.parse({});

export const saveSitePractice = (db: Session, practice: SitePractice): Promise<void> =>
  saveSetting(db, SITES, practice);

/** How this shop's reports read. */
export const findReportWords = async (db: Session, marks?: UnreadableRow[]): Promise<ReportWords> =>
  (await findSetting(db, REPORT, (json) => reportWordsSchema.parse(json), marks)) ?? reportWordsSchema.parse({});

export const saveReportWords = (db: Session, words: ReportWords): Promise<void> => saveSetting(db, REPORT, words);

/** Reference readings of a board, oldest first. */
export async function listReferences(db: Session, boardId: string): Promise<ReferenceReading[]> {
  const rows = await db.select().from(references).where(eq(references.boardId, boardId)).orderBy(asc(references.id));
  return rows.map(({ point, value, source }) => ({ boardId, point, value, source }));
}

/** Rows per statement: SQLite takes a limited number of values at once. */
const BATCH = 500;

/**
 * Keeps readings; the same point from the same source is kept once, with its newest value.
 * @param importKey names the import that brings them, so that it can be taken back as one.
 */
export async function keepReferences(
  db: Session,
  readings: readonly ReferenceReading[],
  at: string,
  importKey?: string,
): Promise<void> {
  for (let from = 0; from < readings.length; from += BATCH) {
    await db
      .insert(references)
      .values(readings.slice(from, from + BATCH).map((r) => ({ ...r, addedAt: at, importKey })))
      .onConflictDoUpdate({
        target: [references.boardId, references.point, references.source],
        set: { value: sql`excluded.value`, importKey: sql`excluded.import_key` },
      });
  }
}

/** Takes back what one import of readings brought. @returns how many readings went. */
export async function dropImport(db: Session, boardId: string, importKey: string): Promise<number> {
  const gone = await db
    .delete(references)
    .where(and(eq(references.boardId, boardId), eq(references.importKey, importKey)))
    .returning({ id: references.id });
  return gone.length;
}

export interface ReferenceImport {
  readonly key: string;
  readonly at: string;
  readonly readings: number;
}

/** The imports of a board's readings that can be taken back, newest first. */
export async function listImports(db: Session, boardId: string): Promise<ReferenceImport[]> {
  const rows = await db
    .select({ key: references.importKey, at: max(references.addedAt), readings: count() })
    .from(references)
    .where(and(eq(references.boardId, boardId), isNotNull(references.importKey)))
    .groupBy(references.importKey)
    .orderBy(desc(max(references.addedAt)));
  return rows.map((r) => ({ key: r.key!, at: r.at!, readings: r.readings }));
}

/** Takes back the readings that came from one source, such as `job 27`. */
export async function dropReferences(db: Session, boardId: string, source: string): Promise<void> {
  await db.delete(references).where(and(eq(references.boardId, boardId), eq(references.source, source)));
}

/** What a bench knows, and a name for just that: another practice or another reading gives another name. */
export interface NamedKnowledge extends BenchKnowledge {
  readonly basis: string;
}

/** What a bench knows beside a board's file and a job's own readings. */
export async function knowledgeOf(db: Session, boardId: string): Promise<NamedKnowledge> {
  const [practice, site, readings] = await Promise.all([
    findPractice(db),
    findSitePractice(db),
    listReferences(db, boardId),
  ]);
  const basis = createHash('sha256')
    .update(JSON.stringify([practice, site, readings]))
    .digest('hex');
  return { practice, site, references: referenceTable(readings), basis };
}

/** Whether this is the demo world, where simulated instruments may be used in every job. */
export const isDemoWorld = async (db: Session): Promise<boolean> =>
  (await findSetting(db, WORLD, (json) => json === 'demo')) ?? false;

export const markDemoWorld = (db: Session): Promise<void> => saveSetting(db, WORLD, 'demo');

/** Where this bench stands, as it was set; the form is checked by whoever sets it. */
export const findPlace = async (
  db: Session,
  parse: (stored: unknown) => BenchPlace,
  marks?: UnreadableRow[],
): Promise<BenchPlace | undefined> => findSetting(db, PLACE, parse, marks);

const FILE_PRESETS = 'filePresets';

/** What was said of the files of this bench's instruments. */
export const findFilePresets = async (
  db: Session,
  parse: (stored: unknown) => FilePreset[],
): Promise<FilePreset[] | undefined> => findSetting(db, FILE_PRESETS, parse);

export const saveFilePresets = (db: Session, presets: readonly FilePreset[]): Promise<void> =>
  saveSetting(db, FILE_PRESETS, presets);

export const savePlace = (db: Session, place: BenchPlace): Promise<void> => saveSetting(db, PLACE, place);
