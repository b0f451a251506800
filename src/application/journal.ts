import path from 'node:path';
import pino, { type Logger } from 'pino';
import roll from 'pino-roll';
import { databaseUrl } from '../db/client';

/** Something that went wrong, as the lead sees it. Nothing an owner said or gave is in it. */
export interface JournalEntry {
  readonly at: string;
  /** What the program was doing. */
  readonly doing: string;
  /** The kind of error, and its code where it has one. */
  readonly error: string;
  /** The program's own sentence, or the first words of the library's. */
  readonly message: string;
}

/** A file of the journal is closed at this size, and so many older ones are kept beside it. Engineering estimates. */
const FILE_SIZE = '2m';
const OLD_FILES = 4;
/** Shown to the lead. */
const LAST = 12;
const LONGEST_WORDS = 300;
/** Read and written by their owner alone. */
const OWNER_ONLY = 0o600;

/** What is said of an error: a library's message may quote what was entered, so that all in quotation marks is left out. */
export function entryOf(doing: string, error: unknown, at: Date): JournalEntry {
  const { name, code, message } =
    error instanceof Error
      ? (error as Error & { code?: unknown })
      : { name: typeof error, code: undefined, message: String(error) };
  const said = message
    .split('\n')[0]
    .replace(/"[^"]*"|'[^']*'|“[^”]*”|`[^`]*`/g, '…')
    .slice(0, LONGEST_WORDS);
  return { at: at.toISOString(), doing, error: code === undefined ? name : `${name} ${String(code)}`, message: said };
}

/** JSON lines in a folder, in files that are closed when they are full; the last of what went wrong is kept at hand. */
export class Journal {
  private readonly newest: JournalEntry[] = [];
  private logger?: Promise<Logger | undefined>;

  /** @param folder where the files go; without one nothing is written, as for a database in memory. */
  constructor(private readonly folder: string | undefined) {}

  /** Tells that something went wrong while the program was doing something. It never throws. */
  problem(doing: string, error: unknown): void {
    const entry = entryOf(doing, error, new Date());
    this.newest.unshift(entry);
    this.newest.length = Math.min(this.newest.length, LAST);
    const { at: _at, ...rest } = entry;
    void this.open().then((log) => log?.error(rest));
  }

  /** Tells that something went as it should. */
  note(doing: string): void {
    void this.open().then((log) => log?.info({ doing }));
  }

  /** The last of what went wrong since the start, the newest first. */
  last(): readonly JournalEntry[] {
    return [...this.newest];
  }

  /** The folder's files are opened with the first line. A disk that takes none keeps nobody from working. */
  private open(): Promise<Logger | undefined> {
    const { folder } = this;
    if (folder === undefined) return Promise.resolve(undefined);
    return (this.logger ??= roll({
      file: path.join(folder, 'journal.jsonl'),
      size: FILE_SIZE,
      limit: { count: OLD_FILES },
      mkdir: true,
      mode: OWNER_ONLY,
    }).then(
      (stream) => {
        stream.on('error', () => undefined);
        return pino({ base: undefined, timestamp: pino.stdTimeFunctions.isoTime }, stream);
      },
      () => undefined,
    ));
  }
}

/** One journal for the whole server: its pages and its routes are loaded apart. */
const shared = globalThis as { unisoldaJournal?: Journal };

/** The journal of this server, beside its database. */
export const journal = (): Journal => (shared.unisoldaJournal ??= new Journal(journalFolder(databaseUrl())));

const FOLDER = 'journal';

/** Beside the file of a database; none for one in memory or elsewhere. */
export function journalFolder(url: string): string | undefined {
  const file = /^file:(?!:memory:)(.+)/.exec(url)?.[1];
  return file ? path.join(path.dirname(path.resolve(file)), FOLDER) : undefined;
}
