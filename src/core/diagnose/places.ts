import type { Board } from '../board';

/** All names that can begin a reading. */
export function placeNames(board: Board): string[] {
  return [...board.points.map((p) => p.id), ...board.parts.map((p) => p.ref), ...Object.keys(board.nets)];
}

/** Levenshtein distance, for "near it". */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      next.push(Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1)));
    }
    row = next;
  }
  return row[b.length];
}

/** Says which places are near a name that is none. */
export function unknownPlace(board: Board, name: string): string {
  const upper = name.toUpperCase();
  const names = placeNames(board);
  const near = names
    .filter((n) => n.toUpperCase().startsWith(upper.replace(/\d+$/, '')) || distance(n.toUpperCase(), upper) <= 1)
    .slice(0, 4);
  const hint = near.length > 0 ? ` Near it: ${near.join(', ')}.` : '';
  return `Expected a test point, part or net of this board; got "${name}".${hint}`;
}
