import { createHash } from 'node:crypto';
import { getTableColumns, getTableName, eq, max } from 'drizzle-orm';
import type { SQLiteTable } from 'drizzle-orm/sqlite-core';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { z } from 'zod';
import { fail, ok, type Result } from '../core/result';
import type { Database } from './client';
import * as schema from './schema';
import { sealedJobRow, sealedStockRows } from './seals';
import type { Session } from './session';

/** All tables that hold what the shop knows, each after those that it points to. Sign-ins, passwords and what is computed stay here. */
const TABLES: readonly SQLiteTable[] = [
  schema.boards,
  schema.boardRevisions,
  schema.images,
  schema.boardPhotos,
  schema.stations,
  schema.calibrations,
  schema.imageFamilies,
  schema.partTypes,
  schema.partFamilies,
  schema.evidence,
  schema.stockEvents,
  schema.jobs,
  schema.settings,
  schema.references,
  schema.jobEvents,
  schema.entries,
];
/** Settings that are this machine's own. */
const OWN_SETTINGS = new Set(['cookieSecret', 'copies']);

const manifestSchema = z.object({
  format: z.literal('unisolda-archive/1'),
  at: z.iso.datetime(),
  files: z.record(z.string(), z.string().regex(/^[0-9a-f]{64}$/)),
  sha256: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .describe('over the names and hashes of all files, in their order'),
});
export type ArchiveManifest = z.infer<typeof manifestSchema>;

type Row = Record<string, unknown>;

const sha256 = (bytes: Uint8Array | string): string => createHash('sha256').update(bytes).digest('hex');
const wholeHash = (files: Readonly<Record<string, string>>): string =>
  sha256(JSON.stringify(Object.entries(files).sort(([a], [b]) => (a < b ? -1 : 1))));

/**
 * Everything that a shop knows in open forms: a file of JSON lines for each table, the bytes of images and pictures as they are, and a
 * manifest with the hash of each file. The same content gives the same hash, wherever it lies.
 */
export async function writeArchive(
  db: Session,
  at: Date,
): Promise<{ readonly bytes: Uint8Array; readonly manifest: ArchiveManifest }> {
  const files: Record<string, Uint8Array> = {};
  for (const table of TABLES) {
    const name = getTableName(table);
    const rows = ((await db.select().from(table)) as Row[]).filter(
      (r) => !(name === 'settings' && OWN_SETTINGS.has(String(r.name))),
    );
    const lines = rows.map((row) => {
      if (name !== 'images') return JSON.stringify(row);
      const { bytes, ...told } = row;
      files[`bytes/${String(row.sha256)}`] = new Uint8Array(bytes as Buffer);
      return JSON.stringify(told);
    });
    // In one order: rows may lie in another one after they were brought in.
    files[`${name}.jsonl`] = strToU8(lines.toSorted().join('\n'));
  }
  const hashes = Object.fromEntries(Object.entries(files).map(([name, bytes]) => [name, sha256(bytes)]));
  const manifest: ArchiveManifest = {
    ...{ format: 'unisolda-archive/1', at: at.toISOString() },
    ...{ files: hashes, sha256: wholeHash(hashes) },
  };
  return { bytes: zipSync({ ...files, 'manifest.json': strToU8(JSON.stringify(manifest, null, 2)) }), manifest };
}

/** What an archive may hold once it is unpacked, bytes: a bomb is not unpacked. Engineering estimate. */
const MOST_BYTES = 4 * 2 ** 30;

interface Archive {
  readonly manifest: ArchiveManifest;
  readonly rows: (table: SQLiteTable) => Row[];
}

/** Reads an archive, each file held against its hash before anything of it is believed. */
export function readArchive(bytes: Uint8Array): Result<Archive> {
  let files: Record<string, Uint8Array>;
  let size = 0;
  try {
    files = unzipSync(bytes, {
      filter: ({ originalSize }) => {
        size += originalSize;
        if (size > MOST_BYTES) throw new Error('too large');
        return true;
      },
    });
  } catch (error) {
    return fail(
      size > MOST_BYTES
        ? `Expected an archive of at most ${MOST_BYTES / 2 ** 30} GB unpacked; this one says it is larger.`
        : `Expected an archive of a shop; got a file that cannot be unpacked: ${error instanceof Error ? error.message : String(error)}.`,
    );
  }
  const read = manifestSchema.safeParse(jsonOf(files['manifest.json']));
  if (!read.success)
    return fail('Expected an archive of a shop with its manifest.json; it is missing, torn or of a newer version.');
  const manifest = read.data;
  for (const [name, hash] of Object.entries(manifest.files)) {
    if (!files[name]) return fail(`Expected ${name} in the archive, as its manifest says; it is missing.`);
    if (sha256(files[name]) !== hash)
      return fail(`Expected ${name} as it was written; its hash is another one. Nothing was brought in.`);
  }
  if (wholeHash(manifest.files) !== manifest.sha256)
    return fail('Expected a manifest that agrees with itself; it was changed.');
  return ok({
    manifest,
    rows: (table) => {
      const name = getTableName(table);
      const text = strFromU8(files[`${name}.jsonl`] ?? new Uint8Array());
      const rows = text === '' ? [] : text.split('\n').map((line) => JSON.parse(line) as Row);
      return name === 'images'
        ? rows.map((r) => ({ ...r, bytes: Buffer.from(files[`bytes/${String(r.sha256)}`]) }))
        : rows;
    },
  });
}

function jsonOf(bytes: Uint8Array | undefined): unknown {
  try {
    return bytes && JSON.parse(strFromU8(bytes));
  } catch {
    return undefined;
  }
}

/** What bringing an archive in did. */
export interface BroughtIn {
  readonly jobs: number;
  readonly entries: number;
  /** Jobs of the archive whose number was taken here, with their new one. */
  readonly renumbered: readonly (readonly [was: number, is: number])[];
}

/** Brings a whole archive into a shop that has no board and no job yet, row by row as it was. */
async function fill(tx: Session, archive: Archive): Promise<BroughtIn> {
  for (const table of TABLES) {
    // The order of a log is that of its numbers.
    const order = ['seq', 'id'].find((c) => c in getTableColumns(table));
    const rows = archive.rows(table).toSorted((a, b) => (order ? Number(a[order]) - Number(b[order]) : 0));
    for (const row of rows) await tx.insert(table).values(row).onConflictDoNothing();
  }
  return { jobs: archive.rows(schema.jobs).length, entries: archive.rows(schema.jobEvents).length, renumbered: [] };
}

/** Tables whose rows are known again by a key of their own: what is here already stays as it is. */
const BY_KEY: readonly SQLiteTable[] = [
  schema.boards,
  schema.images,
  schema.boardPhotos,
  schema.stations,
  schema.imageFamilies,
  schema.partTypes,
  schema.partFamilies,
  schema.entries,
];
/** The same, with a number that each shop gives for itself. */
const NUMBERED: readonly SQLiteTable[] = [schema.calibrations, schema.evidence, schema.references];

/**
 * Brings another shop's archive in beside what is here: each thing by its own key once, jobs by the keys of their entries. A job whose
 * number is taken gets the next free one. Brought in twice it is there once. What this shop settled for itself stays.
 */
async function merge(tx: Session, archive: Archive): Promise<BroughtIn> {
  for (const table of BY_KEY)
    for (const row of archive.rows(table)) await tx.insert(table).values(row).onConflictDoNothing();
  const revisionOf = await mergeBoardFiles(tx, archive);
  for (const table of NUMBERED)
    for (const row of archive.rows(table)) await tx.insert(table).values(omit(row, 'id')).onConflictDoNothing();
  type StockRow = typeof schema.stockEvents.$inferSelect;
  for (const stored of ordered<StockRow>(archive.rows(schema.stockEvents), 'seq')) {
    const row = omit(stored, 'seq', 'seal');
    const [known] = await tx
      .select({ key: schema.stockEvents.key })
      .from(schema.stockEvents)
      .where(eq(schema.stockEvents.key, row.key));
    if (!known) await tx.insert(schema.stockEvents).values(await sealedStockRows(tx, [row]));
  }
  return mergeJobs(tx, archive, revisionOf);
}

/** A row without what each shop gives for itself. */
const omit = <R extends object, K extends keyof R>(row: R, ...keys: K[]): Omit<R, K> =>
  Object.fromEntries(Object.entries(row).filter(([name]) => !keys.includes(name as K))) as Omit<R, K>;

const ordered = <R>(rows: readonly Row[], by: string): R[] =>
  rows.toSorted((a, b) => Number(a[by]) - Number(b[by])) as R[];

/** Board files of the same words are the same; others become the next revision here. Gives each one's revision here. */
async function mergeBoardFiles(tx: Session, archive: Archive): Promise<(board: string, revision: number) => number> {
  const { boardRevisions, boards } = schema;
  const here = new Map<string, number>();
  for (const row of ordered<typeof boardRevisions.$inferSelect>(archive.rows(boardRevisions), 'revision')) {
    const known = await tx.select().from(boardRevisions).where(eq(boardRevisions.boardId, row.boardId));
    const same = known.find((k) => k.json === row.json);
    const revision = same?.revision ?? known.reduce((most, k) => Math.max(most, k.revision), 0) + 1;
    here.set(`${row.boardId} ${row.revision}`, revision);
    if (same) continue;
    await tx.insert(boardRevisions).values({ ...row, revision });
    await tx.update(boards).set({ revision }).where(eq(boards.id, row.boardId));
  }
  return (board, revision) => here.get(`${board} ${revision}`) ?? revision;
}

async function mergeJobs(
  tx: Session,
  archive: Archive,
  revisionOf: (board: string, revision: number) => number,
): Promise<BroughtIn> {
  const { jobs, jobEvents } = schema;
  type EventRow = typeof jobEvents.$inferSelect;
  const events = new Map<number, EventRow[]>();
  for (const e of ordered<EventRow>(archive.rows(jobEvents), 'seq'))
    events.set(e.jobNumber, [...(events.get(e.jobNumber) ?? []), e]);
  const renumbered: [number, number][] = [];
  let [count, entered] = [0, 0];
  for (const job of ordered<typeof jobs.$inferSelect & { openedAt: string }>(archive.rows(jobs), 'number')) {
    const own = events.get(job.number) ?? [];
    const keys = await tx.select({ key: jobEvents.key, number: jobEvents.jobNumber }).from(jobEvents);
    const numberByKey = new Map(keys.map((k) => [k.key, k.number]));
    const [taken] = await tx.select().from(jobs).where(eq(jobs.number, job.number));
    const known =
      own.map((e) => numberByKey.get(e.key)).find((n) => n !== undefined) ??
      (taken?.openedAt === job.openedAt ? job.number : undefined);
    const number = known ?? (taken ? await nextNumber(tx) : job.number);
    if (known === undefined) {
      count += 1;
      if (number !== job.number) renumbered.push([job.number, number]);
      await tx.insert(jobs).values({ ...job, number, boardRevision: revisionOf(job.boardId, job.boardRevision) });
    }
    const [newest] = await tx
      .select({ seq: max(jobEvents.seq) })
      .from(jobEvents)
      .where(eq(jobEvents.jobNumber, number));
    const shift =
      known === undefined ? 0 : Math.max(0, (newest.seq ?? 0) - own.filter((e) => numberByKey.has(e.key)).length);
    for (const stored of own.filter((o) => !numberByKey.has(o.key))) {
      const e = omit(stored, 'id', 'seal');
      const row = {
        ...e,
        jobNumber: number,
        seq: e.seq + shift,
        replaces: e.replaces === null ? null : e.replaces + shift,
      };
      await tx.insert(jobEvents).values(await sealedJobRow(tx, row));
      entered += 1;
    }
  }
  return { jobs: count, entries: entered, renumbered };
}

async function nextNumber(tx: Session): Promise<number> {
  const [row] = await tx.select({ most: max(schema.jobs.number) }).from(schema.jobs);
  return (row.most ?? 0) + 1;
}

/** Brings an archive in, all of it or nothing: into an empty shop as it was, into another beside what is there. */
export async function bringIn(
  db: Database,
  bytes: Uint8Array,
): Promise<Result<BroughtIn & { readonly sha256: string }>> {
  const archive = readArchive(bytes);
  if (!archive.ok) return archive;
  return db.transaction(
    async (tx) => {
      const [board] = await tx.select({ id: schema.boards.id }).from(schema.boards).limit(1);
      const [job] = await tx.select({ number: schema.jobs.number }).from(schema.jobs).limit(1);
      const done = board || job ? await merge(tx, archive.value) : await fill(tx, archive.value);
      return ok({ ...done, sha256: archive.value.manifest.sha256 });
    },
    { behavior: 'immediate' },
  );
}
