import { FileProblem } from '../db/file-guard';
import { refused, type ActionResult } from './action-result';

interface Cause {
  readonly code?: unknown;
  readonly rawCode?: unknown;
  readonly cause?: unknown;
}

/** What the database could not do, as an answer; undefined for anything else, which is a programmer's error. */
export function databaseProblem(error: unknown): ActionResult | undefined {
  for (let e = error; e; e = (e as Cause).cause) {
    if (e instanceof FileProblem) return refused(`${e.message} Not kept.`, 'fileGone');
    const code = String((e as Cause).code ?? '');
    const known = SENTENCES.find(([start]) => code.startsWith(start));
    if (known) return refused(`${known[2]} Not kept.`, known[1]);
  }
  return undefined;
}

/** Result codes of SQLite (sqlite.org/rescode.html) by their start, and what they mean at the bench. */
const SENTENCES: readonly (readonly [string, NonNullable<ActionResult['code']>, string])[] = [
  ['SQLITE_FULL', 'full', 'The disk is full: make room, then enter it again.'],
  ['SQLITE_BUSY', 'busy', 'Another program holds the database: enter it again in a moment.'],
  ['SQLITE_LOCKED', 'busy', 'Another program holds the database: enter it again in a moment.'],
  ['SQLITE_READONLY', 'readOnly', 'The database may only be read here: its file or its folder is write-protected.'],
  ['SQLITE_CORRUPT', 'damaged', 'The database file is damaged: stop here and restore the last copy.'],
  ['SQLITE_NOTADB', 'damaged', 'The database file is no database any more: stop here and restore the last copy.'],
  ['SQLITE_IOERR', 'damaged', 'The disk did not take it: its file system reports an error.'],
  ['SQLITE_CANTOPEN', 'fileGone', 'The database file cannot be opened any more.'],
];
