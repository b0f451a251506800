import type { PartType } from '../parts';
import type { StockEvent } from './events';
import type { StockState } from './state';

/** Use is counted over so many days back. Engineering estimate: a quarter smooths a small shop's weeks. */
export const USE_DAYS = 84;
/** Chance that a reorder comes in before the drawer is empty. Engineering estimate. */
export const SERVICE_LEVEL = 0.95;
/** Days until an order is here where the profile does not say. Engineering estimate. */
const LEAD_DAYS = 7;

export interface Reorder {
  readonly typeId: string;
  readonly onHand: number;
  /** Parts fitted in the days looked back on. */
  readonly used: number;
  readonly point: number;
  /** True when what is on hand is at or below the point. */
  readonly order: boolean;
}

/**
 * Reorder points: the least count that covers the use of one lead time with {@link SERVICE_LEVEL}, taking jobs as a
 * Poisson stream at the rate of the last {@link USE_DAYS} days. Source: (s, Q) inventory rule, textbook.
 */
export function reorderPoints(
  state: StockState,
  events: readonly StockEvent[],
  types: readonly PartType[],
  now: string,
): Reorder[] {
  const since = Date.parse(now) - USE_DAYS * 86_400_000;
  const used = new Map<string, number>();
  for (const { at, body } of events) {
    if (body.kind !== 'move' || body.to.kind !== 'fitted' || Date.parse(at) < since) continue;
    for (const id of body.chips) {
      const { typeId, origin } = state.chips.get(id)!;
      // A chip that goes back to the board it came from uses nothing up.
      if (origin.kind === 'job' && origin.job === body.to.job) continue;
      used.set(typeId, (used.get(typeId) ?? 0) + 1);
    }
  }
  return types
    .filter((t) => t.price !== undefined)
    .map((type) => {
      const count = used.get(type.id) ?? 0;
      const point = poissonQuantile(SERVICE_LEVEL, (count * (type.leadDays ?? LEAD_DAYS)) / USE_DAYS);
      const onHand = onHandOf(state, type.id);
      return { typeId: type.id, onHand, used: count, point, order: count > 0 && onHand <= point };
    });
}

/** Parts that could be taken now: in lots, and loose in the drawer. */
export function onHandOf({ lots, chips }: StockState, typeId: string): number {
  const inLots = [...lots.values()].filter((l) => l.typeId === typeId).reduce((sum, l) => sum + l.left, 0);
  const loose = [...chips.values()].filter(
    (c) => c.typeId === typeId && c.place.kind === 'drawer' && c.condition === 'sound',
  );
  return inLots + loose.length;
}

/** The least n with P(N ≤ n) ≥ p for a Poisson count. */
export function poissonQuantile(p: number, mean: number): number {
  let term = Math.exp(-mean);
  let sum = term;
  let n = 0;
  while (sum < p && n < 10_000) {
    n += 1;
    term *= mean / n;
    sum += term;
  }
  return n;
}
