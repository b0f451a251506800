import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils';

/** One entry as it lies in its log: its columns in their order, and the seal that it was given; null where it has none. */
export interface ChainedEntry {
  readonly id: number;
  readonly columns: readonly (string | number | null)[];
  readonly seal: string | null;
}

/** What the first sealed entry of a log stands after. */
const BEGINNING = 'the first entry';

/** The seal of an entry: SHA-256 over the seal before it and its own columns, in hex. */
export const sealOf = (before: string | null, columns: ChainedEntry['columns']): string =>
  bytesToHex(sha256(utf8ToBytes(JSON.stringify([before ?? BEGINNING, ...columns]))));

/** What a log's seals say of it. */
export interface ChainFound {
  readonly sealed: number;
  /** Entries before the first seal: from before seals were kept. */
  readonly before: number;
  /** The last seal; null in a log without one. */
  readonly seal: string | null;
  /** The first entry that does not fit what was sealed, in words. */
  readonly broken?: { readonly id: number; readonly message: string };
}

/**
 * Goes through a log in its order, entry by entry. One that was changed, taken out or slipped in breaks the chain at its place or the
 * one after it; entries cut off at the end show only against a seal that was written down, such as a report's.
 */
export class ChainCheck {
  private sealed = 0;
  private before = 0;
  private seal: string | null = null;
  private broken?: ChainFound['broken'];
  private metWritten: boolean;

  constructor(writtenDown?: string) {
    this.writtenDown = writtenDown;
    this.metWritten = writtenDown === undefined;
  }
  private readonly writtenDown?: string;

  take({ id, columns, seal }: ChainedEntry): void {
    if (this.broken) return;
    if (seal === null && this.sealed === 0) {
      this.before += 1;
      return;
    }
    if (seal === null) this.broken = { id, message: 'has no seal, after entries that have one' };
    else if (seal !== sealOf(this.seal, columns))
      this.broken = { id, message: 'is not what was sealed, or one before it is missing' };
    if (this.broken) return;
    this.seal = seal;
    this.sealed += 1;
    this.metWritten ||= seal === this.writtenDown;
  }

  found(): ChainFound {
    const { sealed, before, seal } = this;
    const missing = this.metWritten
      ? undefined
      : { id: 0, message: 'the seal that was written down is not in it: entries were cut off or made anew' };
    return { sealed, before, seal, broken: this.broken ?? missing };
  }
}
