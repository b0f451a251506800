import { childOf, childrenOf, figureOf, type Element } from './elements';

/** Millimetres in one of each unit that the standard names. */
const MM_PER: Readonly<Record<string, number>> = { MILLIMETER: 1, MICRON: 0.001, INCH: 25.4 };
export const mmPer = (unit: string | undefined): number | undefined => MM_PER[unit ?? ''];

export type SizeMm = readonly [number, number];
type Point = readonly [number, number];

/** Width and height of a standard primitive, in the unit of its file; undefined for what has none. */
export function sizeOf(shape: Element): SizeMm | undefined {
  const [w, h] = [figureOf(shape, 'width'), figureOf(shape, 'height')];
  const across = [figureOf(shape, 'diameter'), figureOf(shape, 'length'), figureOf(shape, 'outerDiameter')];
  const one = across.find((d) => d > 0);
  if (w > 0 && h > 0) return [w, h];
  if (one !== undefined) return [one, one];
  const corners = childrenOf(shape, 'Polygon').flatMap((p) => cornersOf(p));
  return corners.length > 2 ? spanOf(corners) : undefined;
}

const spanOf = (corners: readonly Point[]): SizeMm => {
  const [xs, ys] = [corners.map((c) => c[0]), corners.map((c) => c[1])];
  const span = (list: readonly number[]): number =>
    list.reduce((a, b) => Math.max(a, b), -Infinity) - list.reduce((a, b) => Math.min(a, b), Infinity);
  return [span(xs), span(ys)];
};

/** Corners on each turn of an arc, so many a full circle. */
const STEPS_A_TURN = 48;

/** The corners of a polygon, its curves as short straight pieces, the end that closes it left out. */
export function cornersOf(polygon: Element): Point[] {
  const begin = childOf(polygon, 'PolyBegin');
  const corners: Point[] = begin ? [[figureOf(begin, 'x'), figureOf(begin, 'y')]] : [];
  for (const step of polygon.children) {
    const to: Point = [figureOf(step, 'x'), figureOf(step, 'y')];
    if (step.name === 'PolyStepSegment') corners.push(to);
    if (step.name === 'PolyStepCurve') corners.push(...arc(corners[corners.length - 1] ?? to, to, step));
  }
  const [first, last] = [corners[0], corners[corners.length - 1]];
  if (corners.length > 1 && Math.hypot(first[0] - last[0], first[1] - last[1]) < CLOSED * spread(corners))
    corners.pop();
  return corners.every(([x, y]) => Number.isFinite(x + y)) ? corners : [];
}

/** Ends nearer than this share of the whole are one corner. Engineering estimate. */
const CLOSED = 1e-5;
const spread = (corners: readonly Point[]): number => {
  const [w, h] = spanOf(corners);
  return Math.max(w, h);
};

function arc(from: Point, to: Point, step: Element): Point[] {
  const [cx, cy] = [figureOf(step, 'centerX'), figureOf(step, 'centerY')];
  const clockwise = step.attributes.clockwise === 'true';
  const radius = Math.hypot(from[0] - cx, from[1] - cy);
  const [a, b] = [Math.atan2(from[1] - cy, from[0] - cx), Math.atan2(to[1] - cy, to[0] - cx)];
  const turn = 2 * Math.PI;
  // Ends that are one are a full circle.
  const ahead = (clockwise ? a - b : b - a) / turn;
  const share = ahead - Math.floor(ahead) || 1;
  const steps = Math.max(1, Math.ceil(share * STEPS_A_TURN));
  return Array.from({ length: steps }, (_, i): Point => {
    if (i === steps - 1) return to;
    const angle = a + ((clockwise ? -1 : 1) * share * turn * (i + 1)) / steps;
    return [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
  });
}
