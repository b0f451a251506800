import Papa from 'papaparse';
import { fail, failAll, ok, type Problem, type Result } from '../result';
import { statsOf, type ReferenceStats } from './stats';

/** One reading on a board that was known to be good. */
export interface ReferenceReading {
  readonly boardId: string;
  /** What was measured, as its id: `pin:J1:A5`, `ohm:AON33`. */
  readonly point: string;
  /** Ohms, or volts. An open line has no figure and is not kept here. */
  readonly value: number;
  /** Where it comes from: `job 27`, `good board 3`. */
  readonly source: string;
}

/** Statistics by point. */
export type ReferenceTable = Readonly<Record<string, ReferenceStats>>;

const COLUMNS = ['board', 'point', 'value', 'source'] as const;
const MOST_ROWS = 200_000;

/** Statistics of the readings of one board, by point. */
export function referenceTable(readings: readonly ReferenceReading[]): ReferenceTable {
  const byPoint = new Map<string, number[]>();
  for (const { point, value } of readings) {
    const values = byPoint.get(point);
    if (values) values.push(value);
    else byPoint.set(point, [value]);
  }
  return Object.fromEntries([...byPoint].map(([point, values]) => [point, statsOf(values)]));
}

/** Reads references from CSV with the columns board, point, value, source. Faulty rows are named by line; then nothing is taken. */
export function parseReferencesCsv(text: string): Result<ReferenceReading[]> {
  const header = (/^.*/.exec(text.trim())?.[0] ?? '').split(/[,;\t]/).map((name) => name.trim());
  const twice = header.find((name, i) => name !== '' && header.indexOf(name) !== i);
  if (twice !== undefined) return fail(`Expected each column once; got ${twice} twice.`);
  const { data, meta } = Papa.parse<Record<string, string>>(text.trim(), { header: true, skipEmptyLines: true });
  const missing = COLUMNS.filter((c) => !meta.fields?.includes(c));
  if (missing.length > 0) return fail(`Expected the columns ${COLUMNS.join(', ')}; missing: ${missing.join(', ')}.`);
  if (data.length > MOST_ROWS) return fail(`Expected at most ${MOST_ROWS} readings; got ${data.length}.`);
  const problems: Problem[] = [];
  const readings = data.flatMap((row, i): ReferenceReading[] => {
    const value = Number(row.value);
    // A row that is cut short has no cells at its end.
    const [board, point, source] = [row.board, row.point, row.source].map((cell) => withoutEscape(cell ?? ''));
    if (board && point && row.value?.trim() && Number.isFinite(value))
      return [{ boardId: board, point, value, source }];
    problems.push({
      at: `line ${i + 2}`,
      message: `expected board, point and a figure; got "${COLUMNS.map((c) => row[c] ?? '').join(', ')}".`,
    });
    return [];
  });
  if (problems.length > 0) return failAll(problems.slice(0, 5));
  return readings.length > 0 ? ok(readings) : fail('Expected one reading or more; got a header only.');
}

/** Cells that a spreadsheet would take for formulas are written behind an apostrophe; it is taken off again. */
const withoutEscape = (cell: string): string => cell.replace(/^'(?=[=+\-@\t\r])/, '');

/** The readings as CSV, the way {@link parseReferencesCsv} takes them. */
export const referencesCsv = (readings: readonly ReferenceReading[]): string =>
  `${Papa.unparse({ fields: [...COLUMNS], data: readings.map((r) => [r.boardId, r.point, r.value, r.source]) }, { newline: '\n', escapeFormulae: true })}\n`;
