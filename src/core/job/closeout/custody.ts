import type { Sha256 } from '../../identities';
import { sha256OfText } from '../../image';
import type { EventBody, JobEvent } from '../log';
import { liveEvents } from '../log';

/** One link of the chain of custody: an image that was kept or written, sealed with all before it. */
export interface CustodyLink {
  readonly seq: number;
  readonly at: string;
  readonly label: string;
  readonly sha256: Sha256;
  /** SHA-256 over the link before and this entry. */
  readonly link: string;
  /** Whether the entry carries the link before it, as it was sealed; none where it was entered without a seal. */
  readonly holds?: boolean;
  /** Undone since; it stays in the chain. */
  readonly undone: boolean;
}

type ImageBody = Extract<EventBody, { kind: 'image' | 'imageWritten' }>;

const START = '0'.repeat(64);

/**
 * The images of a job in the order they came, each sealed with what was before: an entry that is changed, left out or put
 * in afterwards breaks every seal from there on.
 */
export function custodyOf(events: readonly JobEvent[]): CustodyLink[] {
  const live = new Set(liveEvents(events).map((e) => e.seq));
  const links: CustodyLink[] = [];
  for (const { seq, at, body } of events) {
    if (body.kind !== 'image' && body.kind !== 'imageWritten') continue;
    const before = links.at(-1)?.link ?? START;
    links.push({
      ...{ seq, at, label: wordsOf(body), sha256: body.sha256, link: linkOf(before, at, body) },
      ...(body.after !== undefined && { holds: body.after === before }),
      undone: !live.has(seq),
    });
  }
  return links;
}

/** The seal for the next entry. */
export const custodySeal = (events: readonly JobEvent[]): string => custodyOf(events).at(-1)?.link ?? START;

/** Keys in one order: the same entry gives the same text wherever it was read from. */
const canonical = (value: unknown): string =>
  JSON.stringify(value, (_, inner: unknown) =>
    inner !== null && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );

function linkOf(before: string, at: string, body: ImageBody): string {
  return sha256OfText(`${before} ${at} ${canonical({ ...body, after: undefined })}`);
}

const ROLE_WORDS = {
  patient: 'Patient’s image kept',
  donor: 'Donor’s image kept',
  merged: 'New image made',
  before: 'What the chip held kept',
} as const;

const wordsOf = (body: ImageBody): string =>
  body.kind === 'image' ? `${ROLE_WORDS[body.role]}: ${body.name}` : `Written to ${body.ref} and read back`;
