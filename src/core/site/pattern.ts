/** The sites of an array, as columns and rows of which some may hold no ball. */
export interface SitePattern {
  readonly columns: number;
  readonly rows: number;
  /** Row by row: true where a ball belongs. */
  readonly filled: readonly boolean[];
}

export const fullPattern = (columns: number, rows: number): SitePattern => patternWithout(columns, rows, () => false);

/** A full array less the places for which a test says so. */
export const patternWithout = (
  columns: number,
  rows: number,
  isEmpty: (column: number, row: number) => boolean,
): SitePattern => ({
  columns,
  rows,
  filled: Array.from({ length: columns * rows }, (_, i) => !isEmpty(i % columns, Math.floor(i / columns))),
});

export interface Site {
  readonly index: number;
  readonly column: number;
  readonly row: number;
  /** From the pattern's centre, in pitches; y down. */
  readonly x: number;
  readonly y: number;
}

/** The places of a pattern where balls belong. */
export function sitesOf({ columns, rows, filled }: SitePattern): Site[] {
  return filled.flatMap((holds, index) => {
    const [column, row] = [index % columns, Math.floor(index / columns)];
    return holds ? [{ index, column, row, x: column - (columns - 1) / 2, y: row - (rows - 1) / 2 }] : [];
  });
}

/** Pairs of sites a pitch apart, as positions in the list. */
export function neighbourPairs(sites: readonly Site[]): [number, number][] {
  const at = new Map(sites.map((s, i) => [`${s.column} ${s.row}`, i]));
  return sites.flatMap((s, i) =>
    [at.get(`${s.column + 1} ${s.row}`), at.get(`${s.column} ${s.row + 1}`)].flatMap((j): [number, number][] =>
      j === undefined ? [] : [[i, j]],
    ),
  );
}
