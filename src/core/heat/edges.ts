/** Cell edges along one axis, mm. */
export interface Grading {
  /** Finest cell, mm. */
  readonly fineMm: number;
  readonly growth: number;
  readonly coarsestMm: number;
}

/** So far beyond the worked body the mesh stays fine, mm. */
const MARGIN_MM = 1;

/** Edges from `start` to `end`: fine on a body and round it, with edges on the body's own, and growing outside. */
export function gradedEdges(
  [start, end]: readonly [number, number],
  [from, to]: readonly [number, number],
  grading: Grading,
): Float64Array {
  const within = (at: number): number => Math.min(end, Math.max(start, at));
  const stops = [from - MARGIN_MM, from, to, to + MARGIN_MM].map(within);
  const [first, last] = [stops[0], stops[stops.length - 1]];
  const inner = stops.slice(1).flatMap((stop, k) => {
    const length = stop - stops[k];
    const count = length < 1e-9 ? 0 : Math.max(1, Math.round(length / grading.fineMm));
    return Array.from({ length: count }, (_, i) => stops[k] + (length * (i + 1)) / count);
  });
  return Float64Array.from([
    ...growing(first - start, grading)
      .map((d) => first - d)
      .reverse(),
    first,
    ...inner,
    ...growing(end - last, grading).map((d) => last + d),
  ]);
}

/** Distances of the edges that fill `length` with growing cells, the last edge exactly at `length`. */
function growing(length: number, { fineMm, growth, coarsestMm }: Grading): number[] {
  if (length < 1e-9) return [];
  const sizes: number[] = [];
  let size = fineMm;
  for (let sum = 0; sum < length - 1e-9; sum += size) {
    size = Math.min(coarsestMm, size * growth);
    sizes.push(size);
  }
  const stretch = length / sizes.reduce((s, v) => s + v, 0);
  let at = 0;
  return sizes.map((s) => (at += s * stretch));
}

export const sizesM = (edgesMm: Float64Array): Float64Array =>
  Float64Array.from({ length: edgesMm.length - 1 }, (_, i) => (edgesMm[i + 1] - edgesMm[i]) / 1000);

export const centre = (edges: Float64Array, i: number): number => (edges[i] + edges[i + 1]) / 2;

/** Index of the cell that holds a coordinate, clamped to the mesh. */
export function cellAt(edges: Float64Array, at: number): number {
  let i = 0;
  while (i < edges.length - 2 && edges[i + 1] < at) i++;
  return i;
}

/** The two cells whose middles lie round a coordinate, with their shares. */
export function tapsAt(edges: Float64Array, at: number): [cell: number, share: number][] {
  const cell = cellAt(edges, at);
  const other = at < centre(edges, cell) ? cell - 1 : cell + 1;
  if (other < 0 || other > edges.length - 2) return [[cell, 1]];
  const share = (at - centre(edges, cell)) / (centre(edges, other) - centre(edges, cell));
  return [
    [cell, 1 - share],
    [other, share],
  ];
}
