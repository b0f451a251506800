import type { Board, Port, Rail } from '../board';

/** A rail as one port sees it: only the feeds that start at that port count. */
export interface ReachedRail {
  readonly rail: Rail;
  readonly feeds: Rail['feeds'];
}

/**
 * The rails that a charger at this port can bring up, in the board file's order (sources first). What only another port
 * feeds stays without supply here, whatever is wrong with it.
 */
export function reachedRails(board: Board, port: Port): readonly ReachedRail[] {
  const reached = new Map<string, ReachedRail>();
  for (const rail of board.rails) {
    const feeds = rail.feeds.filter((f) => (f.from === null ? rail.id === port.vbusRail : reached.has(f.from)));
    if (feeds.length > 0) reached.set(rail.id, { rail, feeds });
  }
  return [...reached.values()];
}
