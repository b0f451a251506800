import { openSync, readSync, statSync } from 'node:fs';

/** The database file is not the one that was opened: nothing more can be said to be on disk. */
export class FileProblem extends Error {
  constructor(
    message: string,
    readonly kind: 'gone' | 'replaced' | 'cut',
  ) {
    super(message);
  }
}

interface Identity {
  readonly device: number;
  readonly node: number;
}

/** First bytes of a database (SQLite file format, section 1.3.1), and where the shop's own number lies (1.3.14, user version). */
const MAGIC = 'SQLite format 3\u0000';
const HEADER_BYTES = 100;
const SHOP_NUMBER_AT = 60;

function identityOf(file: string): (Identity & { readonly size: number }) | undefined {
  const found = statSync(file, { throwIfNoEntry: false });
  return found && { device: found.dev, node: found.ino, size: found.size };
}

/** The shop's number in a database file's header; undefined where it is no database. */
function shopNumberOf(handle: number): number | undefined {
  const header = Buffer.alloc(HEADER_BYTES);
  if (readSync(handle, header, 0, HEADER_BYTES, 0) < HEADER_BYTES) return undefined;
  return header.toString('latin1', 0, MAGIC.length) === MAGIC ? header.readUInt32BE(SHOP_NUMBER_AT) : undefined;
}

const same = (a: Identity, b: Identity): boolean => a.device === b.device && a.node === b.node;

/**
 * Knows a database file and its write-ahead log again: by device and inode, by a size that never shrinks, and by the shop's number
 * in the header. An open database goes on in a file that was deleted or replaced, and what it says is kept is lost.
 */
export class FileGuard {
  /**
   * Never closed: closing any handle of a file drops all locks that this program has on it (POSIX advisory locks; "How To Corrupt
   * An SQLite Database File", section 2.2), and another program would write over what is written here.
   */
  private readonly handle: number;
  private readonly opened: Identity;
  private readonly shopNumber: number | undefined;
  private leastSize: number;
  private log: Identity | undefined;

  constructor(private readonly file: string) {
    const opened = identityOf(file);
    if (!opened) throw new FileProblem(`Expected the database ${file}; there is none.`, 'gone');
    this.handle = openSync(file, 'r');
    this.opened = opened;
    this.leastSize = opened.size;
    this.shopNumber = shopNumberOf(this.handle);
    this.log = identityOf(`${file}-wal`);
  }

  /** @throws FileProblem where the file is not the one that was opened, or is shorter than it was. */
  check(): void {
    const now = identityOf(this.file);
    if (!now) throw new FileProblem(`The database file ${this.file} was deleted while the bench was running.`, 'gone');
    if (!same(now, this.opened) || shopNumberOf(this.handle) !== this.shopNumber)
      throw new FileProblem(`Another file lies in the place of the database ${this.file}.`, 'replaced');
    if (now.size < this.leastSize)
      throw new FileProblem(
        `The database file ${this.file} was cut: expected at least ${this.leastSize} bytes; got ${now.size}.`,
        'cut',
      );
    this.leastSize = now.size;
    this.checkLog();
  }

  /** The write-ahead log holds what was kept last; it comes with the first write and then stays. */
  private checkLog(): void {
    const now = identityOf(`${this.file}-wal`);
    if (this.log && (!now || !same(now, this.log)))
      throw new FileProblem(`The log beside the database, ${this.file}-wal, was deleted or replaced.`, 'gone');
    this.log = now;
  }
}
