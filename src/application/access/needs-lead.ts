import { and, eq, gt, isNull } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { EventBody } from '../../core/job';
import type { StockBody } from '../../core/stock';
import { confirmations } from '../../db/schema';
import type { Session } from '../../db/session';
import { refused, type ActionResult } from '../action-result';
import type { Entrant } from '../entrant';

/** What an apprentice does with a lead's word only, in words; undefined for everything else. */
export function askedOfLeads(body: EventBody | StockBody): string | undefined {
  switch (body.kind) {
    case 'close':
      return body.outcome === 'repaired' ? 'Closing as repaired' : undefined;
    case 'imageWritten':
      return 'Writing an image';
    case 'donorOpened':
      return 'Opening a donor';
    default:
      return undefined;
  }
}

/** A word holds so long, ms. Engineering estimate: the time of one entry. */
const HOLDS_MS = 5 * 60_000;

/** Keeps a lead's word for the next entry of a sign-in that needs one. */
export async function keepConfirmation(tx: Session, leadName: string, sessionId: string, at: Date): Promise<void> {
  const untilAt = new Date(at.getTime() + HOLDS_MS).toISOString();
  await tx.insert(confirmations).values({ id: randomUUID(), leadName, sessionId, untilAt });
}

/**
 * Who enters, with the lead who stands for it where one is needed; the word is used up. Refused where an apprentice has none.
 */
export async function withLead(
  tx: Session,
  bodies: readonly (EventBody | StockBody)[],
  meta: Entrant,
): Promise<{ readonly meta: Entrant } | { readonly answer: ActionResult }> {
  const what = bodies.map(askedOfLeads).find((w) => w !== undefined);
  if (what === undefined || meta.person?.role !== 'apprentice') return { meta };
  const [word] = await tx
    .select()
    .from(confirmations)
    .where(
      and(
        eq(confirmations.sessionId, meta.person.sessionId),
        isNull(confirmations.usedAt),
        gt(confirmations.untilAt, meta.at),
      ),
    )
    .limit(1);
  if (!word)
    return {
      answer: refused(
        `${what} needs a lead's word: a lead gives it at this bench under Sign-in, then enter it again.`,
        'needsLead',
      ),
    };
  await tx.update(confirmations).set({ usedAt: meta.at }).where(eq(confirmations.id, word.id));
  return { meta: { ...meta, actor: `${meta.actor}, with ${word.leadName}'s word` } };
}
