import { bodyBox, type Board, type Part } from '../board';
import { SMALL_KINDS, type UnderfillKind } from '../heat';

/** A stretch of a part's outline that is cleared in one go; clockwise from the top left corner, as seen from its side. */
export const STRETCHES = [
  'top left corner',
  'top edge',
  'top right corner',
  'right edge',
  'bottom right corner',
  'bottom edge',
  'bottom left corner',
  'left edge',
] as const;
export type StretchName = (typeof STRETCHES)[number];

export interface EdgeSegment {
  readonly name: StretchName;
  readonly lengthMm: number;
  /** Room for a tool, to the nearest neighbour; at most ten. */
  readonly clearanceMm: number;
  /** The neighbour that a slip would meet. */
  readonly near?: string;
  /** What a slip there would cost, per share of the bond still holding. */
  readonly risk: number;
}

export interface ClearingStep extends EdgeSegment {
  readonly seconds: number;
  /** Which way the tool goes and points, in words. */
  readonly tool: string;
}

/** Neighbours farther off than this meet no slip. Engineering estimate. */
const FAR_MM = 10;
/** A corner is cleared over so much of both edges, mm. Engineering estimate. */
const CORNER_MM = 1;
/** Room below which a tool has next to none, mm: risk grows as it goes to nothing. Engineering estimate. */
const TIGHT_MM = 0.4;
/** How much a slip into a neighbour costs against one into a plain chip. Engineering estimates. */
const COSTS = { underfilled: 3, plastic: 2.5, small: 1.5, other: 1 };
/** Turning the board or the hand by a quarter, against the risk of a stretch. Engineering estimate. */
const TURN_COSTS = 0.05;
/** Seconds per millimetre with a fine tool. Engineering estimates, to be replaced by what the bench sees. */
const SECONDS_PER_MM: Readonly<Record<UnderfillKind, number>> = { edge: 2, soft: 3, unknown: 4, hard: 5 };

/** The eight stretches of a part's outline with the room round each. */
export function stretchesOf(board: Board, part: Part): EdgeSegment[] {
  const { x0, y0, x1, y1 } = bodyBox(board, part);
  const [w, h] = [x1 - x0, y1 - y0];
  const others = board.parts
    .filter((p) => p.ref !== part.ref && p.side === part.side)
    .map((p) => ({ part: p, box: bodyBox(board, p) }));
  const inset = Math.min(CORNER_MM, w / 3, h / 3);
  // Each stretch as the thin box that a tool needs to reach: along the edge, or round the corner.
  const boxes: Record<StretchName, [number, number, number, number]> = {
    'top left corner': [x0, y0, x0, y0],
    'top edge': [x0 + inset, y0, x1 - inset, y0],
    'top right corner': [x1, y0, x1, y0],
    'right edge': [x1, y0 + inset, x1, y1 - inset],
    'bottom right corner': [x1, y1, x1, y1],
    'bottom edge': [x0 + inset, y1, x1 - inset, y1],
    'bottom left corner': [x0, y1, x0, y1],
    'left edge': [x0, y0 + inset, x0, y1 - inset],
  };
  return STRETCHES.map((name) => {
    const [a0, b0, a1, b1] = boxes[name];
    const near = others
      .map((o) => ({
        part: o.part,
        mm: Math.hypot(Math.max(0, o.box.x0 - a1, a0 - o.box.x1), Math.max(0, o.box.y0 - b1, b0 - o.box.y1)),
      }))
      .filter((o) => o.mm < FAR_MM)
      .map((o) => ({ ...o, risk: costOf(board, o.part) / (o.mm + TIGHT_MM) }))
      .sort((p, q) => q.risk - p.risk)[0];
    const clearanceMm = Math.min(FAR_MM, ...(near ? [near.mm] : []));
    const lengthMm = name.endsWith('corner') ? 2 * inset : a1 - a0 + b1 - b0;
    return { name, lengthMm, clearanceMm, near: near?.part.ref, risk: near?.risk ?? 0 };
  });
}

function costOf(board: Board, part: Part): number {
  if (part.underfilled) return COSTS.underfilled;
  if (board.packages[part.package].plastic) return COSTS.plastic;
  return SMALL_KINDS.has(part.kind) ? COSTS.small : COSTS.other;
}

/** Quarter turns from one stretch to another round the outline, the shorter way. */
export function turnsBetween(from: EdgeSegment, to: EdgeSegment): number {
  const steps = Math.abs(STRETCHES.indexOf(from.name) - STRETCHES.indexOf(to.name));
  return Math.min(steps, STRETCHES.length - steps) / 2;
}

/**
 * What an order costs: each stretch's risk by the share of the bond that still holds when it is begun (force goes with it),
 * and the turns between.
 */
export function orderCost(order: readonly EdgeSegment[]): number {
  const whole = order.reduce((s, e) => s + e.lengthMm, 0);
  let held = whole;
  return order.reduce((sum, stretch, k) => {
    const cost = stretch.risk * (held / whole) + (k > 0 ? TURN_COSTS * turnsBetween(order[k - 1], stretch) : 0);
    held -= stretch.lengthMm;
    return sum + cost;
  }, 0);
}

/**
 * The order that costs least: what is risky comes last, when little still holds, and the hand turns as little as it can.
 * Best over all subsets and last stretches (Held and Karp 1962), which is exact.
 */
export function bestOrder(stretches: readonly EdgeSegment[]): EdgeSegment[] {
  const n = stretches.length;
  const whole = stretches.reduce((s, e) => s + e.lengthMm, 0);
  const done = Array.from({ length: 1 << n }, (_, set) =>
    stretches.reduce((s, e, i) => (set & (1 << i) ? s + e.lengthMm : s), 0),
  );
  const cost = new Float64Array((1 << n) * n).fill(Infinity);
  const before = new Int8Array((1 << n) * n).fill(-1);
  stretches.forEach((e, i) => (cost[(1 << i) * n + i] = e.risk));
  for (let set = 1; set < 1 << n; set++) {
    for (let last = 0; last < n; last++) {
      const here = cost[set * n + last];
      if (here === Infinity) continue;
      for (let next = 0; next < n; next++) {
        if (set & (1 << next)) continue;
        const held = (whole - done[set]) / whole;
        const value = here + stretches[next].risk * held + TURN_COSTS * turnsBetween(stretches[last], stretches[next]);
        const at = (set | (1 << next)) * n + next;
        if (value < cost[at] - 1e-12) [cost[at], before[at]] = [value, last];
      }
    }
  }
  let set = (1 << n) - 1;
  let last = stretches.reduce((best, _, i) => (cost[set * n + i] < cost[set * n + best] ? i : best), 0);
  const order: EdgeSegment[] = [];
  while (last >= 0) {
    order.unshift(stretches[last]);
    const previous = before[set * n + last];
    set &= ~(1 << last);
    last = previous;
  }
  return order;
}

/** The stretches of a part in the order to clear them, with time and the way of the tool. */
export function clearingSteps(board: Board, part: Part, kind: UnderfillKind): ClearingStep[] {
  return bestOrder(stretchesOf(board, part)).map((stretch) => ({
    ...stretch,
    seconds: Math.max(2, Math.round(stretch.lengthMm * SECONDS_PER_MM[kind])),
    tool: toolWords(board, part, stretch),
  }));
}

/** Along an edge away from the neighbour that a slip would meet; at a corner outwards from the part. */
function toolWords(board: Board, part: Part, { name, near, clearanceMm }: EdgeSegment): string {
  const upright = name === 'left edge' || name === 'right edge';
  const neighbour = near ? board.parts.find((p) => p.ref === near) : undefined;
  const room = near && clearanceMm < 1 ? `, only ${clearanceMm.toFixed(1)} mm of room` : '';
  if (name.endsWith('corner')) return `outwards from the corner${near ? `, point away from ${near}` : ''}${room}`;
  if (!neighbour) return upright ? 'top to bottom' : 'left to right';
  const way = upright
    ? neighbour.yMm > part.yMm
      ? 'bottom to top'
      : 'top to bottom'
    : neighbour.xMm > part.xMm
      ? 'right to left'
      : 'left to right';
  return `${way}, point away from ${near}${room}`;
}
