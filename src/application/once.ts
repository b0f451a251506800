import { createHash, randomUUID } from 'node:crypto';
import type { Database } from '../db/client';
import { addEntry, findEntry, type EntryRow } from '../db/entries';
import { readText } from '../db/readable';
import type { Session } from '../db/session';
import { refused, saved, type ActionResult } from './action-result';
import { databaseProblem } from './database-problem';
import { entrant, now, type Entrant } from './entrant';
import { journal } from './journal';
import { announce } from './live';

/** Something that is entered, and what makes a second delivery of it known. */
export interface Entry {
  /** Made once by whoever enters and kept through every retry; one is made here where nobody retries. */
  readonly key?: string;
  /** What it is entered to, such as `job 31` or `stock`. */
  readonly scope: string;
  /** What is asked, as plain data; bytes by their SHA-256. */
  readonly request: unknown;
}

/** Carries out an entry inside the transaction; what it does not keep leaves nothing behind. */
type Work<P> = (tx: Session, meta: Entrant, prepared: P) => Promise<ActionResult>;

const LONGEST_KEY = 200;

/** Rolls the transaction back and carries the answer out. */
class NotKept extends Error {
  constructor(readonly answer: ActionResult) {
    super(answer.message);
  }
}

/**
 * Carries out an entry at most once, in one transaction: all of its effects and its answer, or nothing. The same key again gets
 * the same answer; the same key for something else is refused. What the disk cannot do becomes a sentence.
 */
export function once(db: Database, entry: Entry, work: Work<undefined>): Promise<ActionResult> {
  return oncePrepared(db, entry, async () => undefined, work);
}

/** The same, with what takes long done before the transaction: nobody else waits for it. */
export async function oncePrepared<P>(
  db: Database,
  entry: Entry,
  prepare: (db: Session) => Promise<P>,
  work: Work<P>,
): Promise<ActionResult> {
  const { key = randomUUID() } = entry;
  if (key.length === 0 || key.length > LONGEST_KEY)
    return refused(`Expected a key of 1 to ${LONGEST_KEY} characters; got ${key.length}.`, 'badInput');
  const request = createHash('sha256').update(JSON.stringify(entry.request)).digest('hex');
  const asked = { key, scope: entry.scope, request };
  const before = await findEntry(db, key);
  if (before) return answerAgain(before, asked);
  const prepared = await prepare(db);
  let by: Entrant | undefined;
  const answer = await inOneTransaction(db, async (tx) => {
    by = undefined;
    const known = await findEntry(tx, key);
    if (known) return answerAgain(known, asked);
    const meta = await entrant(key);
    const answer = await work(tx, meta, prepared);
    if (!answer.saved) throw new NotKept(answer);
    await addEntry(tx, { ...asked, answer: JSON.stringify(answer), at: meta.at });
    by = meta;
    return answer;
  });
  // On disk by now: the other benches may look.
  if (by && answer.saved) announce(entry.scope, answer.seq, by);
  return answer;
}

/** Tries while another program holds the file, and the time between two, ms. */
const MOST_TRIES = 20;
const BETWEEN_TRIES_MS = 20;

/** The work in one transaction that takes the file for writing at once; tried again while another program holds it. */
async function inOneTransaction(db: Database, work: (tx: Session) => Promise<ActionResult>): Promise<ActionResult> {
  for (let tries = 1; ; tries++) {
    try {
      return await db.transaction(work, { behavior: 'immediate' });
    } catch (error) {
      if (error instanceof NotKept) return error.answer;
      const problem = databaseProblem(error);
      if (problem) journal().problem('keeping an entry', error);
      if (!problem) throw error;
      if (problem.code !== 'busy' || tries === MOST_TRIES) return problem;
      await new Promise((resolve) => setTimeout(resolve, BETWEEN_TRIES_MS));
    }
  }
}

function answerAgain(known: EntryRow, asked: Pick<EntryRow, 'scope' | 'request'>): ActionResult {
  if (known.request === '') return refused('This entry was given up before it came. Not kept.', 'keyReused');
  if (known.scope !== asked.scope || known.request !== asked.request)
    return refused(
      `Expected a key of its own for each entry; this one was used for ${known.scope}. Not kept.`,
      'keyReused',
    );
  return answerOf(known);
}

/** The answer as it was given; one that cannot be read says at least that the entry was kept. */
function answerOf({ answer }: EntryRow): ActionResult {
  const read = readText(() => JSON.parse(answer) as ActionResult);
  return read.ok ? read.value : saved('Kept before.');
}

/** What became of an entry whose answer never came. */
export interface Settled {
  readonly known: boolean;
  readonly answer: ActionResult;
}

/**
 * Finds out what became of an entry. One that is not there is given up for good: should it still come, it is refused, so that
 * entering it again under a new key cannot keep it twice.
 */
export async function settle(db: Database, key: string): Promise<Settled> {
  return db.transaction(
    async (tx): Promise<Settled> => {
      const known = await findEntry(tx, key);
      if (known && known.request !== '') return { known: true, answer: answerOf(known) };
      if (!known) await addEntry(tx, { key, scope: 'given up', request: '', answer: '{}', at: now() });
      return { known: false, answer: refused('It did not arrive. Not kept: enter it again.') };
    },
    { behavior: 'immediate' },
  );
}

/** Keeps something that may be kept again without harm, such as a setting: the last one counts. */
export const keep = (db: Database, scope: string, work: (tx: Session, at: string) => Promise<string>) =>
  once(db, { scope, request: null }, async (tx, { at }) => saved(await work(tx, at)));
