import { and, eq, isNotNull, like, lt, ne, notLike } from 'drizzle-orm';
import { createHash } from 'node:crypto';
import { entries, images, jobEvents, jobSummaries } from './schema';
import type { Session } from './session';

/** What stands where an owner's words stood: now, and in what was erased before there were retention times. */
const MARKS = ['erased', 'erased at the owner’s request'] as const;

/** What is left of entries that hold an owner's data, by their type: fixed, so that nothing else can hide in their place. */
const LEFT: Readonly<Record<string, (mark: string) => object>> = {
  story: (symptom) => ({ symptom, history: [], dataMatters: false, locked: false, consent: true, pack: 'sound' }),
  note: (text) => ({ text }),
  picture: (words) => ({ sha256: '0'.repeat(64), words, masks: 0 }),
};

const erasedBody = (type: string, erasedFrom: string, mark: string = MARKS[0]): string =>
  JSON.stringify({ type, version: 1, data: { ...LEFT[type](mark), erasedFrom } });

/** The hash that an entry's seal rests on: that of its body, or of what its body was before it was erased on request. */
export function sealedHash(body: string): string {
  const from = /"erasedFrom":"([0-9a-f]{64})"/.exec(body)?.[1];
  const isErased = (type: string): boolean => MARKS.some((mark) => erasedBody(type, from!, mark) === body);
  if (from && Object.keys(LEFT).some(isErased)) return from;
  return createHash('sha256').update(body).digest('hex');
}

const typeOf = (body: string): string => {
  try {
    const { type, kind } = JSON.parse(body) as { type?: string; kind?: string };
    return type ?? kind ?? '';
  } catch {
    return '';
  }
};

/** What an answer that spoke of an owner's words leaves. */
const ANSWERED = JSON.stringify({ saved: true, message: 'Kept before.' });

/**
 * Erases an owner's words, pictures and images from a job, in the transaction of whoever decided it. The entries stay in their
 * places with their seals; bytes that another job rests on stay too.
 * @returns how many entries and images were erased.
 */
export async function eraseOwnersData(
  tx: Session,
  number: number,
): Promise<{ readonly entries: number; readonly images: number }> {
  const rows = await tx.select().from(jobEvents).where(eq(jobEvents.jobNumber, number));
  const counts = { entries: 0, images: 0 };
  for (const { id, body } of rows) {
    for (const [, sha256] of body.matchAll(/"sha256":"([0-9a-f]{64})"/g)) {
      const [elsewhere] = await tx
        .select({ id: jobEvents.id })
        .from(jobEvents)
        .where(and(ne(jobEvents.jobNumber, number), like(jobEvents.body, `%${sha256}%`)))
        .limit(1);
      if (elsewhere) continue;
      const gone = await tx.delete(images).where(eq(images.sha256, sha256)).returning({ sha256: images.sha256 });
      counts.images += gone.length;
    }
    const type = typeOf(body);
    if (!(type in LEFT) || body.includes('"erasedFrom"')) continue;
    await tx
      .update(jobEvents)
      .set({ body: erasedBody(type, createHash('sha256').update(body).digest('hex')) })
      .where(eq(jobEvents.id, id));
    counts.entries += 1;
  }
  await tx
    .update(entries)
    .set({ answer: ANSWERED })
    .where(eq(entries.scope, `job ${number}`));
  return counts;
}

/** Closed jobs whose last entry is older than a moment, and whose owner's words are still there. */
export async function jobsWithOwnersData(db: Session, before: string): Promise<number[]> {
  const rows = await db
    .selectDistinct({ number: jobSummaries.jobNumber })
    .from(jobSummaries)
    .innerJoin(jobEvents, eq(jobEvents.jobNumber, jobSummaries.jobNumber))
    .where(
      and(
        isNotNull(jobSummaries.outcome),
        lt(jobSummaries.lastAt, before),
        like(jobEvents.body, '%"story"%'),
        notLike(jobEvents.body, '%"erasedFrom"%'),
      ),
    )
    .orderBy(jobSummaries.jobNumber);
  return rows.map((r) => r.number);
}
