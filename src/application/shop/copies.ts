import { existsSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { problemText } from '../../core/result';
import { backUpOpen, lastCopy, restore } from '../../db/backup';
import { databaseUrl, type Database } from '../../db/client';
import { findCopySetting, saveCopySetting } from '../../db/knowledge';
import type { Session } from '../../db/session';
import { refused, refusedFor, saved, type ActionResult } from '../action-result';
import { journal } from '../journal';
import { keep } from '../once';

const copySettingSchema = z.object({
  folder: z.string().trim().min(1).max(400).refine(path.isAbsolute, 'expected a whole path, from the root'),
  everyHours: z.number().min(0.25, 'expected 0.25 to 168 hours').max(168, 'expected 0.25 to 168 hours'),
});
export type CopySetting = z.infer<typeof copySettingSchema>;

const loadSetting = (db: Session): Promise<CopySetting | undefined> =>
  findCopySetting(db, (json) => copySettingSchema.parse(json));

/** Keeps where the copies go and how often; the folder is tried by the first copy at once. */
export async function keepCopySetting(db: Database, setting: unknown): Promise<ActionResult> {
  const parsed = copySettingSchema.safeParse(setting);
  if (!parsed.success) return refused(`Expected a folder and hours; ${parsed.error.issues[0].message}.`, 'badInput');
  const tried = await backUpOpen(db, parsed.data.folder, new Date());
  if (!tried.ok) return refusedFor(tried.problems);
  return keep(db, 'copies', async (tx) => {
    await saveCopySetting(tx, parsed.data);
    return `Kept, and a first copy made: ${tried.value.rows} rows.`;
  });
}

/** A copy now, into the folder of the shop. */
export async function copyNow(db: Database): Promise<ActionResult> {
  const setting = await loadSetting(db);
  if (!setting) return refused('Expected a folder for the copies; name one first.');
  const made = await backUpOpen(db, setting.folder, new Date());
  return made.ok ? saved(`Copied: ${made.value.rows} rows, ${made.value.file}.`) : refusedFor(made.problems);
}

export interface CopyState {
  readonly setting?: CopySetting;
  readonly last?: { readonly at: string; readonly rows: number; readonly file: string };
  readonly names: readonly string[];
  /** What is wrong with the copies, in a sentence; undefined where the last one is young enough. */
  readonly warning?: string;
}

/** A copy is old when so many of its intervals have passed. Engineering estimate: one may be missed. */
const OLD_INTERVALS = 2.5;

/** How the copies stand. */
export async function loadCopyState(db: Session, now: Date): Promise<CopyState> {
  const setting = await loadSetting(db);
  if (!setting)
    return { names: [], warning: 'Nothing is copied: a dead disk takes everything. A lead names a folder under Shop.' };
  const names = existsSync(setting.folder)
    ? readdirSync(setting.folder)
        .filter((n) => n.endsWith('.db'))
        .toSorted()
        .toReversed()
    : [];
  const last = lastCopy(setting.folder);
  if (!last) return { setting, names, warning: `There is no copy in ${setting.folder}, or the folder is gone.` };
  const hours = (now.getTime() - new Date(last.at).getTime()) / 3_600_000;
  const warning =
    hours > OLD_INTERVALS * setting.everyHours
      ? `The last good copy is ${hours < 48 ? `${Math.round(hours)} hours` : `${Math.round(hours / 24)} days`} old; expected one every ${setting.everyHours} hours.`
      : undefined;
  return { setting, last: { at: last.at, rows: last.rows, file: last.file }, names, warning };
}

/** How often it is looked whether a copy is due, ms. */
const LOOKS_EVERY_MS = 5 * 60_000;

/** Copies as the shop has set it, for as long as the server runs; what fails is seen by the age of the last copy. */
export function keepCopying(db: Database): void {
  const look = async (): Promise<void> => {
    const setting = await loadSetting(db);
    if (!setting) return;
    const last = lastCopy(setting.folder);
    const due = !last || Date.now() - new Date(last.at).getTime() >= setting.everyHours * 3_600_000;
    if (!due) return;
    const made = await backUpOpen(db, setting.folder, new Date());
    if (!made.ok) journal().problem('copying', new Error(problemText(made.problems)));
  };
  const timer = setInterval(
    () => void look().catch((error: unknown) => journal().problem('copying', error)),
    LOOKS_EVERY_MS,
  );
  timer.unref();
}

/** Restores one of the copies into a new file beside the database; the bench goes on with its own until it is started on that one. */
export async function restoreCopy(db: Database, name: string, now: Date): Promise<ActionResult> {
  const setting = await loadSetting(db);
  if (!setting || path.basename(name) !== name || !existsSync(path.join(setting.folder, name)))
    return refused('Expected one of the copies in the folder.', 'notFound');
  const url = databaseUrl();
  if (!url.startsWith('file:')) return refused('Expected a database in a file; this one is elsewhere.');
  const into = path.join(
    path.dirname(url.slice(5)),
    `restored-${now.toISOString().slice(0, 19).replaceAll(':', '-')}.db`,
  );
  const done = await restore(path.join(setting.folder, name), into);
  return done.ok
    ? saved(
        `Restored to ${into}: ${done.value.rows} rows, the hash agrees. Start the bench with DATABASE_URL=file:${into} to go on with it.`,
      )
    : refusedFor(done.problems);
}

/** Size of the database with its log, bytes; undefined where it lies elsewhere. */
export function databaseBytes(): number | undefined {
  const url = databaseUrl();
  if (!url.startsWith('file:')) return undefined;
  return [url.slice(5), `${url.slice(5)}-wal`].reduce((sum, f) => sum + (existsSync(f) ? statSync(f).size : 0), 0);
}
