import Papa from 'papaparse';

const SEPARATORS = [',', ';', '\t', '|'] as const;
const LOOKED_AT = 40;

/** The rows of a list of parts, from the separator under which a row is its header; by blanks where it is laid out in columns. */
export function rowsWith(text: string, isHeader: (row: readonly string[]) => boolean): string[][] | undefined {
  const lines = text
    .split(/\r\n|\n|\r/)
    .filter((line) => line.trim() !== '' && !/^#(?!\s*ref)/i.test(line.trim()))
    .map((line) => line.replace(/^#+\s*/, ''));
  for (const delimiter of SEPARATORS) {
    const rows = Papa.parse<string[]>(lines.join('\n'), { delimiter, skipEmptyLines: true }).data;
    if (rows.slice(0, LOOKED_AT).some(isHeader)) return rows.map((row) => row.map(withoutEscape));
  }
  const rows = lines.map((line) => line.trim().split(/\s+/));
  return rows.slice(0, LOOKED_AT).some(isHeader) ? rows.filter((row) => !/^-+$/.test(row[0])) : undefined;
}

/** Cells that would be formulas of a spreadsheet are written behind an apostrophe. */
const withoutEscape = (cell: string): string => cell.replace(/^'(?=[=+\-@])/, '');
