import { createEmptyCard, fsrs, Rating, type Card, type Grade } from 'ts-fsrs';
import { z } from 'zod';

/** How well an answer was known. */
export const RECALLS = ['forgotten', 'withEffort', 'known'] as const;
export type Recall = (typeof RECALLS)[number];
export const recallSchema = z.enum(RECALLS);

const GRADE: Readonly<Record<Recall, Grade>> = {
  forgotten: Rating.Again,
  withEffort: Rating.Hard,
  known: Rating.Good,
};

const at = z.iso.datetime();
const count = z.number().int().min(0);

/** How well a fact sits, and when it is asked again; times are ISO 8601. */
export const memorySchema = z.object({
  due: at,
  stability: z.number().min(0),
  difficulty: z.number().min(0),
  elapsed_days: z.number().min(0).default(0),
  scheduled_days: z.number().min(0),
  learning_steps: count,
  reps: count,
  lapses: count,
  state: z.number().int().min(0).max(3),
  last_review: at.optional(),
});
export type Memory = z.infer<typeof memorySchema>;

/** In whole days, without chance: nobody stands at the bench for a question that is due in a minute. */
const scheduler = fsrs({ enable_short_term: false, enable_fuzz: false });

const cardOf = (memory: Memory): Card => ({
  ...memory,
  due: new Date(memory.due),
  last_review: memory.last_review === undefined ? undefined : new Date(memory.last_review),
});

/** What is remembered after an answer. @param before nothing where it was never asked. @param nowAt ISO 8601. */
export function recalled(before: Memory | undefined, recall: Recall, nowAt: string): Memory {
  const now = new Date(nowAt);
  const { card } = scheduler.next(before ? cardOf(before) : createEmptyCard(now), now, GRADE[recall]);
  return memorySchema.parse({ ...card, due: card.due.toISOString(), last_review: card.last_review?.toISOString() });
}

/** Questions to be asked now: what is due, the longest first, then so many that were never asked. */
export function dueFacts<T extends { readonly id: string }>(
  facts: readonly T[],
  memories: ReadonlyMap<string, Memory>,
  nowAt: string,
  newOnes: number,
): T[] {
  const due = facts
    .filter((f) => (memories.get(f.id)?.due ?? '￿') <= nowAt)
    .sort((a, b) => (memories.get(a.id)!.due < memories.get(b.id)!.due ? -1 : 1));
  return [...due, ...facts.filter((f) => !memories.has(f.id)).slice(0, newOnes)];
}
