/** Which cells of a mesh a shape covers, and how much of each: exact areas, so that a body keeps its size at any cell size. */

export type Point = readonly [xMm: number, yMm: number];

/**
 * Share of every cell that lies inside a polygon, by column (y·nx + x); cells outside are left out.
 * @param outline corners in order, either way round; must not cross itself.
 */
export function coverOf(outline: readonly Point[], xs: Float64Array, ys: Float64Array): Map<number, number> {
  const nx = xs.length - 1;
  const [x0, x1, y0, y1] = extent(outline);
  const covers = new Map<number, number>();
  for (let y = 0; y < ys.length - 1; y++) {
    if (ys[y + 1] <= y0 || ys[y] >= y1) continue;
    const row = clipped(clipped(outline, 1, ys[y], 1), 1, ys[y + 1], -1);
    if (row.length < 3) continue;
    for (let x = 0; x < nx; x++) {
      if (xs[x + 1] <= x0 || xs[x] >= x1) continue;
      const inside = clipped(clipped(row, 0, xs[x], 1), 0, xs[x + 1], -1);
      const share = polygonArea(inside) / ((xs[x + 1] - xs[x]) * (ys[y + 1] - ys[y]));
      if (share > LEAST_COVER) covers.set(y * nx + x, Math.min(1, share));
    }
  }
  return covers;
}

/** Slivers below this share of a cell are left out; and from this share on a cell counts as full. */
const LEAST_COVER = 1e-3;

/** What of a polygon lies on one side of a line across an axis. Source: Sutherland and Hodgman, CACM 17 (1974). */
function clipped(polygon: readonly Point[], axis: 0 | 1, at: number, side: 1 | -1): Point[] {
  const kept: Point[] = [];
  for (let i = 0; i < polygon.length; i++) {
    const [a, b] = [polygon[i], polygon[(i + 1) % polygon.length]];
    const [fromA, fromB] = [side * (a[axis] - at), side * (b[axis] - at)];
    if (fromA >= 0) kept.push(a);
    if (fromA * fromB < 0) {
      const share = fromA / (fromA - fromB);
      kept.push([a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])]);
    }
  }
  return kept;
}

/** Area of a polygon, mm². */
export function polygonArea(points: readonly Point[]): number {
  const doubled = points.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = points[(i + 1) % points.length];
    return sum + x * nextY - nextX * y;
  }, 0);
  return Math.abs(doubled) / 2;
}

function extent(points: readonly Point[]): [x0: number, x1: number, y0: number, y1: number] {
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  return [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
}

/** Even–odd rule; x to the right, y down. */
export function insideOutline(outline: readonly Point[], x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [xi, yi] = outline[i];
    const [xj, yj] = outline[j];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
  }
  return inside;
}
