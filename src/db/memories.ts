import { eq } from 'drizzle-orm';
import { memorySchema, type Memory } from '../core/drill';
import { readText } from './readable';
import { memories } from './schema';
import type { Session } from './session';

/** What a person remembers, by fact; what cannot be read counts as never asked. */
export async function memoriesOf(db: Session, person: string): Promise<Map<string, Memory>> {
  const rows = await db.select().from(memories).where(eq(memories.person, person));
  return new Map(
    rows.flatMap(({ fact, json }) => {
      const read = readText(() => memorySchema.parse(JSON.parse(json)));
      return read.ok ? [[fact, read.value] as const] : [];
    }),
  );
}

export async function saveMemory(db: Session, person: string, fact: string, memory: Memory): Promise<void> {
  const json = JSON.stringify(memory);
  await db
    .insert(memories)
    .values({ person, fact, json })
    .onConflictDoUpdate({ target: [memories.person, memories.fact], set: { json } });
}
