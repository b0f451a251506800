import type { NetName, PartRef, RailId } from '../identities';
import { groundNet, type Board } from '../board';
import { portOf } from './circuit-model';
import { reachedRails } from './reach';

/** What joins nets so well that current goes on through it, ohm. Common practice: fuses, coils, filter lines. */
const JOINED_BELOW_OHM = 1;

/** What is joined on the board as it was made, once for each net. */
const kept = new WeakMap<Board, Map<string, ReadonlySet<string>>>();

/** The nets that are joined to one as good as directly, itself among them: through fuses, coils, filter lines, links. */
export function islandOf(board: Board, net: NetName, absent: ReadonlySet<PartRef> = new Set()): ReadonlySet<string> {
  if (absent.size > 0) return followJoins(board, net, absent);
  let nets = kept.get(board);
  if (!nets) kept.set(board, (nets = new Map<string, ReadonlySet<string>>()));
  let island = nets.get(net);
  if (!island) {
    island = followJoins(board, net, absent);
    for (const joined of island) nets.set(joined, island);
  }
  return island;
}

/** Parts that join nets, by net; made once for a board. */
const joins = new WeakMap<Board, ReadonlyMap<string, readonly Join[]>>();

interface Join {
  readonly ref: PartRef;
  readonly to: string;
}

function joinsOf(board: Board): ReadonlyMap<string, readonly Join[]> {
  let known = joins.get(board);
  if (known) return known;
  const all = new Map<string, Join[]>();
  const add = (from: string, to: string, ref: PartRef): void => {
    const list = all.get(from);
    if (list) list.push({ ref, to });
    else all.set(from, [{ ref, to }]);
  };
  for (const part of board.parts)
    for (const [a, b] of conductingPairs(part)) {
      add(a, b, part.ref);
      add(b, a, part.ref);
    }
  joins.set(board, (known = all));
  return known;
}

/** Where a part is off the current does not go on. */
function followJoins(board: Board, from: string, absent: ReadonlySet<PartRef>): ReadonlySet<string> {
  const ground = groundNet(board);
  const all = joinsOf(board);
  const found = new Set([from]);
  const queue = [from];
  for (let net = queue.pop(); net !== undefined; net = queue.pop()) {
    for (const { ref, to } of all.get(net) ?? []) {
      if (absent.has(ref) || to === ground || found.has(to)) continue;
      found.add(to);
      queue.push(to);
    }
  }
  return found;
}

function conductingPairs({ kind, pins, ohm }: Board['parts'][number]): [string, string][] {
  if (kind === 'lineFilter')
    return [
      [pins['1'], pins['2']],
      [pins['3'], pins['4']],
    ];
  const passes = kind === 'fuse' || kind === 'coil' || (kind === 'resistor' && (ohm ?? Infinity) < JOINED_BELOW_OHM);
  return passes ? [[pins['1'], pins['2']]] : [];
}

/** Nets that decide what happens at a port: its bus, its CC lines, and every rail that it brings up. */
export function netsAtPort(board: Board, portId: string): string[] {
  const port = portOf(board, portId);
  return [...port.sides.map((s) => s.ccNet), ...reachedRails(board, port).map(({ rail }) => rail.net)];
}

/** The net of a rail and of everything that feeds it. */
export function netsOfRail(board: Board, railId: RailId): string[] {
  const found = new Set([railId]);
  // A set that grows while it is gone through is gone through to its end.
  for (const id of found)
    for (const { from } of board.rails.find((r) => r.id === id)?.feeds ?? []) if (from !== null) found.add(from);
  return board.rails.filter((r) => found.has(r.id)).map((r) => r.net);
}
