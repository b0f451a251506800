'use server';

import { revalidatePath } from 'next/cache';
import { problemText } from '@/core/result';
import { parseStockEntry } from '@/core/stock';
import { database } from '@/db/client';
import { benchMeta } from '@/db/enter';
import { appendStock } from '@/db/stock';
import type { EntryAnswer } from '@/ui';
import { loadStockWorld } from './queries';

/** Reads a typed line of the stock again on the server, keeps it, and answers when it is on disk. */
export async function enterStockLine(text: string, key: string): Promise<EntryAnswer> {
  const world = await loadStockWorld();
  let entry = parseStockEntry(world, text);
  if (!entry.ok) return { kept: false, words: problemText(entry.problems) };
  const read = entry.value;
  const stored = await appendStock(
    await database(),
    (state) => {
      // Read once more where it is kept: another bench may have taken the next free name meanwhile.
      entry = parseStockEntry({ ...world, state }, text);
      return (entry.ok ? entry.value : read).bodies;
    },
    benchMeta(key),
  );
  if (!stored.ok) return { kept: false, words: problemText(stored.problems) };
  revalidatePath('/', 'layout');
  return { kept: true, words: entry.ok ? entry.value.echo : read.echo, seq: stored.value.at(-1)?.seq };
}
