import type { Result } from '../core/result';
import { fail, ok, problemText } from '../core/result';

/** A row that cannot be read: it is marked where it belongs, and takes nothing else down with it. */
export interface UnreadableRow {
  readonly table: string;
  readonly id: string;
  readonly problem: string;
}

/** What a form made of a row's text, with whatever it throws as a problem. */
export function readText<T>(parse: () => T): Result<T> {
  try {
    return ok(parse());
  } catch (error) {
    return fail(firstLine(error));
  }
}

/** The first thing that is wrong, in one sentence: a schema lists all of them as JSON. */
function firstLine(error: unknown): string {
  const issue = (error as { issues?: readonly { path: readonly PropertyKey[]; message: string }[] }).issues?.[0];
  if (issue) return `${issue.path.map(String).join('.') || 'the whole'}: ${issue.message}.`;
  return error instanceof Error ? `${error.message.split('\n')[0]}.` : 'It is not readable.';
}

/**
 * The rows that can be read; the others are left out and marked.
 * @param marks takes a mark for each row that cannot be read.
 */
export function readRows<Row, T>(
  table: string,
  rows: readonly Row[],
  idOf: (row: Row) => string | number,
  parse: (row: Row) => T,
  marks?: UnreadableRow[],
): T[] {
  return rows.flatMap((row) => {
    const read = readText(() => parse(row));
    if (read.ok) return [read.value];
    marks?.push({ table, id: String(idOf(row)), problem: problemText(read.problems) });
    return [];
  });
}
