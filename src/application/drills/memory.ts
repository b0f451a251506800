import { allFacts, dueFacts, recalled, recallSchema, type Fact } from '../../core/drill';
import { dayIn } from '../../core/units';
import { listBoardsInUse } from '../../db/boards';
import type { Database } from '../../db/client';
import { memoriesOf, saveMemory } from '../../db/memories';
import type { Session } from '../../db/session';
import { refused, saved, type ActionResult } from '../action-result';
import { entrant, now } from '../entrant';
import { once } from '../once';
import { loadPlace } from '../place';

/** Facts that were never asked come in so many at a time. Engineering estimate: a few minutes. */
const NEW_AT_ONCE = 5;
/** Boards whose facts are asked. */
const MOST_BOARDS = 12;

/** What is to be asked now, and how many facts there are and sit. */
export interface MemoryRound {
  readonly ask: readonly Fact[];
  readonly known: number;
  readonly all: number;
}

const factsOf = async (db: Session): Promise<Fact[]> => allFacts((await listBoardsInUse(db)).slice(0, MOST_BOARDS));

export async function loadMemoryRound(db: Session): Promise<MemoryRound> {
  const { actor } = await entrant('');
  const [facts, memories] = await Promise.all([factsOf(db), memoriesOf(db, actor)]);
  const known = facts.filter((f) => memories.has(f.id)).length;
  return { ask: dueFacts(facts, memories, now(), NEW_AT_ONCE), known, all: facts.length };
}

/** Keeps how well a fact was known; it is asked again when that says so. */
export async function keepRecall(db: Database, factId: string, input: unknown, key: string): Promise<ActionResult> {
  const recall = recallSchema.safeParse(input);
  if (!recall.success) return refused('Expected how well it was known.', 'badInput');
  const fact = (await factsOf(db)).find((f) => f.id === factId);
  if (!fact) return refused(`Expected a fact that is asked here; got "${factId}".`, 'notFound');
  return once(db, { key, scope: 'memory', request: { factId, input } }, async (tx, { actor, at }) => {
    const memory = recalled((await memoriesOf(tx, actor)).get(factId), recall.data, at);
    await saveMemory(tx, actor, factId, memory);
    return saved(`Asked again on ${dayIn(await loadPlace(tx), memory.due)}.`);
  });
}
