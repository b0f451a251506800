import Papa from 'papaparse';
import { fail, ok, type Result } from '../../result';
import { textOf, type Encoding } from '../text/encoding';
import { isMissing, isOver, looksLikeFigure } from './cell';
import { looksLikeTime } from './clock';
import { unitOf } from './unit';

/** A table as it lies in a text file. */
export interface TableLayout {
  readonly encoding: Encoding;
  readonly delimiter: string;
  /** One name a column; empty names where the file has no header. */
  readonly header: readonly string[];
  readonly hasHeader: boolean;
  /** The units of a row of their own between header and figures; empty texts where it has none. */
  readonly units: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** Number of the line at which the first row stands, from 1. */
  readonly firstLine: number;
  /** Lines above the header: name of the instrument, rate, day. */
  readonly preamble: readonly string[];
  readonly notes: readonly string[];
}

/** Most rows that are read: a day of samples every tenth of a second. */
export const MOST_ROWS = 1_000_000;
/** Rows that are looked at to find separator and header. */
const LOOKED_AT = 400;
const MOST_COLUMNS = 256;
const DELIMITERS = [';', '\t', ',', '|'] as const;
const BLANKS = ' ';
/** Share of cells that are figures, squared, below which rows are no table. Engineering estimate. */
const LEAST_FILLED = 0.15;
/** Rows that do not fit, as a share: above it the file is refused. Engineering estimate. */
const MOST_ODD = 0.01;

/** The cells of a line; a parser is only needed where something is quoted. */
function splitLine(line: string, delimiter: string): string[] {
  if (delimiter === BLANKS) return line.trim().split(/\s+/);
  const cells = line.includes('"')
    ? (Papa.parse<string[]>(line, { delimiter }).data[0] ?? [''])
    : line.split(delimiter);
  return cells.map((cell) => cell.trim());
}

const isData = (cell: string): boolean => looksLikeFigure(cell) || looksLikeTime(cell);
const isGap = (cell: string): boolean => isMissing(cell) || isOver(cell);

/** How many cells of a row are figures or times, and how many are words. */
function countsOf(row: readonly string[]): { data: number; gaps: number; words: number } {
  const counts = { data: 0, gaps: 0, words: 0 };
  for (const cell of row) {
    if (isGap(cell)) counts.gaps++;
    else if (isData(cell)) counts.data++;
    else counts.words++;
  }
  return counts;
}

/** A row of a table of figures: one figure or time at least, and not more words than those. */
const isDataRow = (row: readonly string[]): boolean => {
  const { data, words } = countsOf(row);
  return data >= 1 && words <= data + 1;
};

interface Shape {
  readonly delimiter: string;
  readonly width: number;
  /** Index of the first row of figures among the lines looked at. */
  readonly first: number;
  readonly score: number;
}

/** The shape that a separator gives: the width most data rows share, and how well they are filled with figures. */
function shapeWith(lines: readonly string[], delimiter: string): Shape | undefined {
  const rows = lines.map((line) => splitLine(line, delimiter));
  const data = rows.map(isDataRow);
  const widths = new Map<number, number>();
  rows.forEach((row, i) => {
    if (row.length > 1 && data[i]) widths.set(row.length, (widths.get(row.length) ?? 0) + 1);
  });
  const [width, count] = [...widths].reduce((a, b) => (b[1] > a[1] ? b : a), [0, 0]);
  if (width < 2 || width > MOST_COLUMNS) return undefined;
  const fitting = rows.filter((row, i) => row.length === width && data[i]);
  const filled = fitting.reduce((sum, row) => sum + (width - countsOf(row).words) / width, 0) / fitting.length;
  const first = rows.findIndex((row, i) => row.length === width && data[i]);
  const dataRows = Math.max(1, rows.length - first);
  return { delimiter, width, first, score: (count / dataRows) * filled ** 2 };
}

/** Lines that are remarks by the mark they begin with; a number sign alone in its cell names a column that counts rows. */
const REMARK = /^\s*(?:"?#(?!"?\s*(?:[,;\t|]|$))|\/\/|%)/;
const withoutMark = (line: string): string => line.replace(/^\s*(?:#+|\/\/|%)\s*/, '');

/**
 * Finds encoding, separator, header, row of units and rows of a table of figures. Whatever stands above the header is kept as
 * preamble; rows that do not fit are told by line, and the file is refused where they are many.
 * @param asked a separator that a person named.
 */
export function layoutOf(bytes: Uint8Array, asked?: string): Result<TableLayout> {
  if (bytes.length === 0) return fail('Expected a table; got an empty file.');
  const { text, encoding } = textOf(bytes);
  const all = text.split(/\r\n|\n|\r/);
  while (all.length > 0 && all[all.length - 1].trim() === '') all.pop();
  if (all.length > 0 && all[all.length - 1] === '\u001a') all.pop();
  if (all.length > MOST_ROWS) return fail(`Expected at most ${MOST_ROWS} rows; got ${all.length}.`);
  const declared = /^sep=(.)$/i.exec(all[0] ?? '')?.[1];
  // A row that begins with a semicolon is a remark only where semicolons do not part the columns.
  const remark = (line: string): boolean =>
    REMARK.test(line) && !isDataRow(splitLine(line, line.includes('\t') ? '\t' : ',').slice(0, 1));
  const numbered = all
    .map((line, i) => ({ line, number: i + 1 }))
    .filter(({ line, number }) => line.trim() !== '' && !(number === 1 && declared));
  const usable: typeof numbered = [];
  const remarks: typeof numbered = [];
  for (const row of numbered) (remark(row.line) ? remarks : usable).push(row);
  const looked = usable.slice(0, LOOKED_AT).map(({ line }) => line);
  const wanted = asked ?? declared;
  const shapes = (wanted === undefined ? [...DELIMITERS, BLANKS] : [wanted])
    .map((d) => shapeWith(looked, d))
    .filter((s) => s !== undefined);
  const best = shapes.reduce<Shape | undefined>(
    (a, b) => (a === undefined || b.score > a.score * 1.02 ? b : a),
    undefined,
  );
  if (!best || best.score < LEAST_FILLED) {
    return fail(
      `Expected rows of two or more columns with figures; got ${usable.length} lines without, first "${(usable[0]?.line ?? '').slice(0, 60)}".`,
    );
  }
  return rowsOf(usable, best, encoding, remarks);
}

/** A row that names columns: words, none of them figures, as many as the rows have cells. */
const isHeader = (row: readonly string[], width: number): boolean =>
  row.length >= width - 1 &&
  row.length <= width + 1 &&
  row.filter((cell) => cell !== '' && !isData(cell)).length >= Math.ceil(width / 2);

const isUnitsRow = (row: readonly string[]): boolean => {
  const filled = row
    .map((cell) => cell.replace(/^[([{]|[)\]}]$/g, '').trim())
    .filter((cell) => !/^(?:|[-#1]|n\/a|none)$/i.test(cell));
  return filled.length > 0 && filled.every((cell) => unitOf(cell) !== undefined || /^(hh:)?mm:ss(\.s+)?$/i.test(cell));
};

function rowsOf(
  usable: readonly { readonly line: string; readonly number: number }[],
  { delimiter, width, first }: Shape,
  encoding: Encoding,
  remarks: readonly { readonly line: string; readonly number: number }[],
): Result<TableLayout> {
  const cut = usable.map(({ line }) => splitLine(line, delimiter));
  // A header may stand in a remark: the last one right above the rows.
  const marked = remarks
    .filter(({ number }) => number < usable[first].number)
    .map(({ line }) => splitLine(withoutMark(line), delimiter))
    .filter((row) => row.length === width);
  const above = [...cut.slice(0, first)];
  if (!above.some((row) => isHeader(row, width))) above.push(...marked.slice(-2));
  let units: string[] = [];
  let top = above.length - 1;
  if (top >= 1 && isUnitsRow(above[top]) && isHeader(above[top - 1], width)) {
    units = above[top].map((cell) => cell.replace(/^[([{]|[)\]}]$/g, '').trim());
    top--;
  }
  const hasHeader = top >= 0 && isHeader(above[top], width);
  const names = hasHeader ? above[top].slice(0, width) : [];
  const header = Array.from({ length: width }, (_, i) => names[i]?.replace(/^["']|["']$/g, '').trim() ?? '');
  const preamble = [
    ...remarks.map(({ line }) => line),
    ...usable.slice(0, Math.min(first, hasHeader ? top : top + 1)).map(({ line }) => line),
  ];
  const rows: string[][] = [];
  const odd: { number: number; line: string }[] = [];
  for (let i = first; i < cut.length; i++) {
    const row = cut[i];
    // A separator at the end of each line makes one empty cell too many.
    const fits =
      row.length === width ||
      (row.length === width + 1 && row[width] === '') ||
      (row.length === width - 1 && isDataRow(row));
    if (fits && (isDataRow(row) || row.every(isGap))) rows.push(row.slice(0, width));
    else odd.push(usable[i]);
  }
  // What follows the last row is a footer, a last row that was cut off included.
  const lastGood = rows.length;
  const trailing = [...odd].reverse().findIndex((o, k) => o.number !== usable[usable.length - 1 - k].number);
  const footer = trailing < 0 ? odd.length : trailing;
  const within = odd.slice(0, odd.length - footer);
  if (within.length > Math.max(2, MOST_ODD * lastGood))
    return fail(
      `Expected ${width} columns of figures in every row; got ${within.length} rows that are not so, first "${within[0].line.slice(0, 60)}".`,
      `line ${within[0].number}`,
    );
  const notes = [
    ...within.map((o) => `Line ${o.number} is left out: "${o.line.slice(0, 60)}".`),
    ...(footer > 0
      ? [
          `${footer} ${footer === 1 ? 'line' : 'lines'} after the last row left out: "${odd[odd.length - footer].line.slice(0, 60)}".`,
        ]
      : []),
  ];
  return ok({
    encoding,
    delimiter,
    header,
    hasHeader,
    units: Array.from({ length: width }, (_, i) => units[i] ?? ''),
    rows,
    firstLine: usable[first].number,
    preamble,
    notes,
  });
}
