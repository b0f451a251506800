import { eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { session, user } from '../../db/schema';
import { refused, saved, type ActionResult } from '../action-result';
import { now } from '../entrant';
import { auth } from './auth';
import { keepConfirmation } from './needs-lead';
import type { Person } from './person';

/** Wrong tries for a name since the last right one, and until when it waits. */
interface Wrong {
  readonly tries: number;
  readonly untilMs: number;
}
/** So many wrong tries are free; each further one doubles the wait. NIST SP 800-63B, 5.2.2 asks for a limit (from memory); figures are estimates. */
const FREE_TRIES = 5;
const FIRST_WAIT_MS = 30_000;
const LONGEST_WAIT_MS = 15 * 60_000;
/** Names that are remembered at once: more are guesses. */
const MOST_NAMES = 1000;

const shared = globalThis as { unisoldaWrongTries?: Map<string, Wrong> };
const wrongTries = (): Map<string, Wrong> => (shared.unisoldaWrongTries ??= new Map());

/** How long a name has to wait, in a sentence; undefined where it may try. */
function waits(username: string, nowMs: number): string | undefined {
  const left = (wrongTries().get(username)?.untilMs ?? 0) - nowMs;
  return left > 0 ? `Too many wrong tries for this name. Try again in ${Math.ceil(left / 1000)} s.` : undefined;
}

function wasWrong(username: string, nowMs: number): void {
  const tries = (wrongTries().get(username)?.tries ?? 0) + 1;
  const waitMs = tries < FREE_TRIES ? 0 : Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (tries - FREE_TRIES));
  if (wrongTries().size >= MOST_NAMES) wrongTries().delete(wrongTries().keys().next().value!);
  wrongTries().set(username, { tries, untilMs: nowMs + waitMs });
}

const WRONG = 'Expected a name and a password of this shop; these two do not go together.';

/** The headers that sign a browser in, or why not. */
export type SignedIn =
  { readonly ok: true; readonly headers: Headers } | { readonly ok: false; readonly message: string };

/** Signs somebody in at a bench. The same sentence for a name that nobody has and for a wrong password. */
export async function signIn(username: string, password: string, bench: string): Promise<SignedIn> {
  const name = username.trim().toLowerCase();
  const wait = waits(name, Date.now());
  if (wait) return { ok: false, message: wait };
  if (bench.trim().length > 40) return { ok: false, message: 'Expected a bench of at most 40 characters.' };
  try {
    const { headers, response } = await (
      await auth()
    ).api.signInUsername({ body: { username: name, password }, returnHeaders: true });
    const db = await database();
    if (!response) throw new Error('no session');
    await db.update(session).set({ bench: bench.trim() }).where(eq(session.token, response.token));
    wrongTries().delete(name);
    return { ok: true, headers };
  } catch {
    wasWrong(name, Date.now());
    return { ok: false, message: WRONG };
  }
}

/** A lead's word for the next entry of whoever is signed in here: checked by the password, kept for minutes, used once. */
export async function giveWord(username: string, password: string, person: Person | undefined): Promise<ActionResult> {
  if (!person) return refused('Expected somebody who is signed in; nobody is.');
  const name = username.trim().toLowerCase();
  const wait = waits(name, Date.now());
  if (wait) return refused(wait);
  const db = await database();
  const known = await (await auth()).api.signInUsername({ body: { username: name, password } }).catch(() => null);
  if (!known) {
    wasWrong(name, Date.now());
    return refused(WRONG);
  }
  // It was asked for its answer alone: nobody is signed in by it.
  await db.delete(session).where(eq(session.token, known.token));
  const [lead] = await db.select({ role: user.role, name: user.name }).from(user).where(eq(user.username, name));
  if (lead?.role !== 'lead') return refused(`Expected a lead; ${name} is none.`);
  await keepConfirmation(db, lead.name, person.sessionId, new Date(now()));
  return saved(`${lead.name}'s word stands for the next entry of ${person.name} that needs one, for five minutes.`);
}

/** Ends a sign-in; with `everywhere` all of the same person's. */
export async function signOut(person: Person | undefined, everywhere: boolean): Promise<void> {
  if (!person) return;
  const db = await database();
  const [row] = await db.select({ userId: session.userId }).from(session).where(eq(session.id, person.sessionId));
  if (!row) return;
  await db.delete(session).where(everywhere ? eq(session.userId, row.userId) : eq(session.id, person.sessionId));
}
