import { parseImageFamily } from '../../core/image';
import { parsePartType, partFamilySchema, reportSchema } from '../../core/parts';
import { listBoards } from '../../db/boards';
import type { Database } from '../../db/client';
import { findSourcing } from '../../db/knowledge';
import { findImageFamily, saveImageFamily } from '../../db/library';
import { addReport, listPartFamilies, listPartTypes, listReports, savePartFamily, savePartType } from '../../db/parts';
import type { UnreadableRow } from '../../db/readable';
import type { Session } from '../../db/session';
import { firstIssue, refused, refusedFor, saved, type ActionResult } from '../action-result';
import { keep, once } from '../once';

/** Keeps what somebody saw; a report that makes no sense changes nothing. */
export async function keepReport(db: Database, input: unknown, key: string): Promise<ActionResult> {
  const parsed = reportSchema.safeParse(input);
  if (!parsed.success) {
    const { at, message } = firstIssue(parsed.error);
    return refused(`Expected a report with part type, board, place and date; ${at}: ${message}.`, 'badInput');
  }
  return once(db, { key, scope: 'reports', request: parsed.data }, async (tx, { at }) => {
    await addReport(tx, parsed.data, key, at);
    return saved('Kept: it counts from now on.');
  });
}

/** Keeps the school and the rules of a family. */
export function keepFamily(db: Database, id: string, change: unknown): Promise<ActionResult> {
  return once(db, { scope: `part family ${id}`, request: change ?? null }, async (tx) => {
    const known = (await listPartFamilies(tx)).find((f) => f.id === id);
    const family = known ?? { format: 'unisolda-part-family/1', id, name: id };
    const parsed = partFamilySchema.safeParse({ ...family, ...(change as object), id });
    if (!parsed.success)
      return refused('Expected a school for the memory, and rules as fits, untried or blocks.', 'badInput');
    await savePartFamily(tx, parsed.data);
    return saved('Kept: every open job counts with it from now on.');
  });
}

/** Adds part types from a file: one, or a list. All of them or none. */
export async function addPartTypes(db: Database, text: string): Promise<ActionResult> {
  let input: unknown;
  try {
    input = JSON.parse(text);
  } catch (error) {
    return refused(`Expected part types in JSON; got text that is not JSON (${(error as Error).message}).`, 'badInput');
  }
  const parsed = (Array.isArray(input) ? input : [input]).map(parsePartType);
  const problems = parsed.flatMap((p) => (p.ok ? [] : p.problems));
  if (problems.length > 0 || parsed.length === 0) {
    const { message } = refusedFor(problems);
    return refused(`${message} Nothing was kept.`, 'badInput');
  }
  return keep(db, 'part types', async (tx) => {
    for (const p of parsed) if (p.ok) await savePartType(tx, p.value);
    return `Kept: ${parsed.length} ${parsed.length === 1 ? 'part type' : 'part types'}.`;
  });
}

/** Keeps a map of images; one that is there already goes on to its next revision. A malformed one changes nothing. */
export async function saveMap(db: Database, map: unknown): Promise<ActionResult> {
  const parsed = parseImageFamily(map);
  if (!parsed.ok) return refused(`${refusedFor(parsed.problems).message} Nothing was kept.`, 'badInput');
  return once(db, { scope: `map ${parsed.value.id}`, request: parsed.value }, async (tx) => {
    const before = await findImageFamily(tx, parsed.value.id);
    if (before && before.sizeBytes !== parsed.value.sizeBytes)
      return refused(
        `Expected ${before.sizeBytes.toLocaleString('en')} bytes, which ${before.name} has; got ${parsed.value.sizeBytes.toLocaleString('en')}. Give the map an id of its own. Nothing was kept.`,
      );
    const revision = before ? (before.revision ?? 1) + 1 : 1;
    await saveImageFamily(tx, { ...parsed.value, revision });
    return saved(`Kept as ${parsed.value.id}, revision ${revision}.`);
  });
}

/** All part types, how this bench treats their families, and what was reported of them. */
export async function loadParts(db: Session) {
  const unreadable: UnreadableRow[] = [];
  const [types, families, reports, boards, practice] = await Promise.all([
    listPartTypes(db, unreadable),
    listPartFamilies(db, unreadable),
    listReports(db, undefined, unreadable),
    listBoards(db),
    findSourcing(db, unreadable),
  ]);
  const places = boards.flatMap((b) =>
    b.slots.map((s) => ({
      boardId: b.id,
      board: `${b.device} ${b.revision}`,
      ref: s.ref,
      type: s.type,
      functions: b.functions.filter((f) => s.functions.includes(f.id)).map(({ id, what }) => ({ id, what })),
    })),
  );
  return { types, families, reports, places, practice, unreadable };
}
export type Parts = Awaited<ReturnType<typeof loadParts>>;
