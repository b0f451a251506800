'use server';

import { revalidatePath } from 'next/cache';
import { parsePartType, partFamilySchema, reportSchema } from '@/core/parts';
import { problemText } from '@/core/result';
import { sourcingPracticeSchema } from '@/core/sourcing';
import { database } from '@/db/client';
import { findSourcing, saveSourcing } from '@/db/knowledge';
import { addReport, listPartFamilies, savePartFamily, savePartType } from '@/db/parts';

export interface PartsAnswer {
  readonly kept: boolean;
  readonly words: string;
}

const no = (words: string): PartsAnswer => ({ kept: false, words });
const kept = (words: string): PartsAnswer => {
  revalidatePath('/', 'layout');
  return { kept: true, words };
};

/** Keeps what somebody saw; a report that makes no sense changes nothing. */
export async function keepReport(input: unknown, key: string): Promise<PartsAnswer> {
  const parsed = reportSchema.safeParse(input);
  if (!parsed.success) {
    const [{ path, message }] = parsed.error.issues;
    return no(`Expected a report with part type, board, place and date; ${path.map(String).join('.')}: ${message}.`);
  }
  await addReport(await database(), parsed.data, key, new Date().toISOString());
  return kept('Kept: it counts from now on.');
}

/** Keeps the school and the rules of a family. */
export async function keepFamily(id: string, change: unknown): Promise<PartsAnswer> {
  const db = await database();
  const family = (await listPartFamilies(db)).find((f) => f.id === id) ?? {
    format: 'unisolda-part-family/1',
    id,
    name: id,
  };
  const parsed = partFamilySchema.safeParse({ ...family, ...(change as object), id });
  if (!parsed.success) return no('Expected a school for the memory, and rules as fits, untried or blocks.');
  await savePartFamily(db, parsed.data);
  return kept('Kept: every open job counts with it from now on.');
}

/** Keeps how much a report counts, and whether unproven donors may be planned with. */
export async function keepEvidenceSettings(change: unknown): Promise<PartsAnswer> {
  const parsed = sourcingPracticeSchema.pick({ weights: true, unprovenDonors: true }).safeParse(change);
  if (!parsed.success) return no('Expected weights from 0 to 5, such as 0.7.');
  const db = await database();
  await saveSourcing(db, { ...(await findSourcing(db)), ...parsed.data });
  return kept('Kept: every open job counts with it from now on.');
}

/** Adds part types from a file: one, or a list. All of them or none. */
export async function addPartTypes(text: string): Promise<PartsAnswer> {
  let input: unknown;
  try {
    input = JSON.parse(text);
  } catch (error) {
    return no(`Expected part types in JSON; got text that is not JSON (${(error as Error).message}).`);
  }
  const parsed = (Array.isArray(input) ? input : [input]).map(parsePartType);
  const problems = parsed.flatMap((p) => (p.ok ? [] : p.problems));
  if (problems.length > 0 || parsed.length === 0) return no(`${problemText(problems)} Nothing was kept.`);
  const db = await database();
  for (const p of parsed) if (p.ok) await savePartType(db, p.value);
  return kept(`Kept: ${parsed.length} ${parsed.length === 1 ? 'part type' : 'part types'}.`);
}
