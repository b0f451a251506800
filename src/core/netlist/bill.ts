import type { PartRef } from '../identities';
import { fail, failAll, ok, type Problem, type Result } from '../result';
import type { ForeignBoard } from './foreign';

/** What a bill of material says of one part. */
export interface BillLine {
  readonly ref: PartRef;
  readonly value: string;
  readonly footprint: string;
}

type Role = 'refs' | 'value' | 'footprint' | 'quantity' | 'fitted';
const NAMES: Readonly<Record<Role, RegExp>> = {
  refs: /^(?:ref(?:erence|des|s)?(?:[ _]?des(?:ignator)?s?)?s?|designators?|part ?refs?|location)\b/i,
  value: /^(?:val(?:ue)?|comment|part(?! ?ref)|description)\b/i,
  footprint: /^(?:package|footprint|pattern|case)\b/i,
  quantity: /^(?:qty|quantity|count|anzahl|menge|qnty)\b/i,
  fitted: /^(?:fitted|dnp|populate|variant)\b/i,
};
const MOST_PARTS = 20_000;

/** Whether a row of cells is the header of a bill of material: designators, and what they are or how many. */
export const isBillHeader = (row: readonly string[]): boolean => {
  const has = (role: Role): boolean => row.some((cell) => NAMES[role].test(cell.trim()));
  return has('refs') && (has('value') || has('quantity'));
};

/** Designators of a cell: `R1, R2 R5-R8`. Undefined where a range makes no sense. */
export function designatorsIn(text: string): string[] | undefined {
  const out: string[] = [];
  for (const word of text.split(/[\s,;]+/).filter(Boolean)) {
    const range = /^([A-Za-z_]+)(\d+)\s*[-–…]\s*(?:\1)?(\d+)$/.exec(word);
    if (!range) {
      out.push(word);
      continue;
    }
    const [from, to] = [Number(range[2]), Number(range[3])];
    if (to < from || to - from > 1000) return undefined;
    for (let n = from; n <= to; n++) out.push(`${range[1]}${n}`);
  }
  return out;
}

/** Reads the rows of a bill of material: a line for each part, or one for several with their designators in a cell. */
export function billFrom(rows: readonly (readonly string[])[]): Result<BillLine[]> {
  const head = rows.findIndex(isBillHeader);
  if (head < 0) return fail('Expected a header with designators and values or counts; got none.');
  const columns = Object.fromEntries(
    (Object.keys(NAMES) as Role[]).map((role) => [role, rows[head].findIndex((cell) => NAMES[role].test(cell.trim()))]),
  ) as Record<Role, number>;
  const problems: Problem[] = [];
  const seen = new Set<string>();
  const lines: BillLine[] = [];
  rows.slice(head + 1).forEach((row, i) => {
    const cell = (role: Role): string => (columns[role] < 0 ? '' : (row[columns[role]] ?? '').trim());
    if (cell('refs') === '') return;
    const at = `line ${head + i + 2}`;
    const refs = designatorsIn(cell('refs'));
    const count = Number(cell('quantity'));
    if (!refs) return void problems.push({ at, message: `expected designators; got "${cell('refs').slice(0, 60)}".` });
    if (cell('quantity') !== '' && count !== refs.length)
      return void problems.push({
        at,
        message: `expected as many designators as the count, ${cell('quantity')}; got ${refs.length}.`,
      });
    for (const ref of refs) {
      if (seen.has(ref)) problems.push({ at, message: `expected each designator once; ${ref} comes again.` });
      seen.add(ref);
      lines.push({ ref, value: cell('value'), footprint: cell('footprint') });
    }
  });
  if (problems.length > 0) return failAll(problems.slice(0, 5));
  if (lines.length > MOST_PARTS) return fail(`Expected at most ${MOST_PARTS} parts; got ${lines.length}.`);
  return lines.length > 0 ? ok(lines) : fail('Expected one part or more; got a header only.');
}

/** The board with the values of a bill; parts that it does not name stay as they are. */
export function withBill(board: ForeignBoard, bill: readonly BillLine[]): ForeignBoard {
  const byRef = new Map(bill.map((line) => [line.ref.toUpperCase(), line]));
  return {
    ...board,
    parts: board.parts.map((part) => {
      const line = byRef.get(part.ref.toUpperCase());
      return line ? { ...part, value: line.value || part.value, footprint: line.footprint || part.footprint } : part;
    }),
  };
}
