import type { Board } from '../../board';

/** A board cut out round a part: the search then has half of the cells to heat, and the same neighbours in the way. */
export function cutOut(board: Board, ref: string, halfMm: number): Board {
  const { xMm: x, yMm: y, side } = board.parts.find((p) => p.ref === ref)!;
  const edge = (axis: 0 | 1, at: number): number => {
    const along = board.outlineMm.map((p) => p[axis]);
    return Math.min(Math.max(...along), Math.max(Math.min(...along), at));
  };
  const [x0, x1] = [edge(0, x - halfMm), edge(0, x + halfMm)];
  const [y0, y1] = [edge(1, y - halfMm), edge(1, y + halfMm)];
  const isInside = (at: number, from: number, to: number): boolean => at > from + 1 && at < to - 1;
  return {
    ...board,
    outlineMm: [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ],
    parts: board.parts.filter((p) => p.side === side && isInside(p.xMm, x0, x1) && isInside(p.yMm, y0, y1)),
  };
}
