import { groundNet, partByRef, type Board, type Part, type PartKind } from '../board';
import type { NetName, PartRef } from '../identities';
import type { Effect, Fault } from './faults';
import type { Measurement } from './measurements/registry';
import type { Value } from './value';

/** What of a large board is modelled whole: the rest counts as what hangs on its nets. */
export interface Neighbourhood {
  readonly nets: ReadonlySet<NetName>;
  readonly parts: ReadonlySet<PartRef>;
  /** Parts beyond it. */
  readonly beyond: number;
}

/** Boards up to so many parts are modelled whole. Engineering estimate: a reading into belief stays below 150 ms. */
const MOST_WHOLE = 250;
/** The neighbourhood grows step by step as long as it stays below so many parts. Engineering estimate. */
const MOST_NEAR = 200;
/** From part to net to part, so many times. Engineering estimate: further off nothing shows at a port. */
const STEPS = 3;
/** A net with more parts than this is a bus or a rail: what hangs on it is not near for that. Engineering estimate. */
const MOST_ON_NET = 12;

/** Kinds that a port and its rails depend on wherever they stand. */
const ALWAYS: ReadonlySet<PartKind> = new Set<PartKind>([
  ...(['portController', 'chargeController', 'mux', 'flash', 'processor'] as const),
  ...(['batteryConnector', 'fuse'] as const),
]);

const cached = new WeakMap<Board, Map<string, Neighbourhood>>();

/** What lies beyond and counts on its own all the same, since it was read or worked on. */
export interface Opened {
  readonly nets: readonly NetName[];
  readonly parts: readonly PartRef[];
}
export const NOTHING_OPENED: Opened = { nets: [], parts: [] };

export const openedKey = ({ nets, parts }: Opened): string =>
  `${[...nets].sort().join(' ')}|${[...parts].sort().join(' ')}`;

/**
 * The ports, what serves them and makes their rails, and what is linked to those by signals within a few steps.
 * @returns undefined for a board that is modelled whole.
 */
export function neighbourhoodOf(board: Board, opened: Opened = NOTHING_OPENED): Neighbourhood | undefined {
  if (board.parts.length <= MOST_WHOLE) return undefined;
  let found = cached.get(board);
  if (!found) cached.set(board, (found = new Map<string, Neighbourhood>()));
  const key = openedKey(opened);
  const made = found.get(key) ?? grown(board, opened);
  found.set(key, made);
  return made;
}

function grown(board: Board, opened: Opened): Neighbourhood {
  const ground = groundNet(board);
  const netsOfPart = (part: Part): NetName[] => Object.values(part.pins).filter((net) => net !== ground);
  const onNet = new Map<NetName, Part[]>();
  for (const part of board.parts)
    for (const net of new Set(netsOfPart(part))) onNet.set(net, [...(onNet.get(net) ?? []), part]);
  const named = namedParts(board);
  const near = new Set(board.parts.filter((p) => named.has(p.ref) || ALWAYS.has(p.kind)));
  const nets = new Set<NetName>([...board.rails.map((r) => r.net), ...[...near].flatMap(netsOfPart)]);
  const spreads = (net: NetName): boolean =>
    board.nets[net]?.role !== 'power' && (onNet.get(net)?.length ?? 0) <= MOST_ON_NET;
  const take = (parts: Iterable<Part>): void => {
    for (const part of parts) {
      near.add(part);
      for (const net of netsOfPart(part)) nets.add(net);
    }
  };
  for (let step = 0; step < STEPS; step++) {
    const next = new Set([...nets].filter(spreads).flatMap((net) => onNet.get(net) ?? []));
    if (new Set([...near, ...next]).size > MOST_NEAR) break;
    take(next);
  }
  take(board.parts.filter((p) => opened.parts.includes(p.ref)));
  for (const net of opened.nets) {
    nets.add(net);
    if (spreads(net)) take(onNet.get(net) ?? []);
  }
  return { nets, parts: new Set([...near].map((p) => p.ref)), beyond: board.parts.length - near.size };
}

/** Parts that the ports, the rails, the functions and the slots of the board file name. */
const namedParts = ({ ports, rails, functions, slots }: Board): ReadonlySet<PartRef> =>
  new Set([
    ...ports.flatMap((p) => [p.id, p.controller, p.imagePart ?? '', ...p.sides.flatMap((s) => s.path)]),
    ...rails.flatMap((r) => r.feeds.flatMap((f) => [...f.via, f.by ?? ''])),
    ...functions.flatMap((f) => f.parts),
    ...slots.map((s) => s.ref),
  ]);

/** What pulls at a net, or joins it with another. */
type Pull = Extract<Effect, { kind: 'shunt' | 'leak' | 'bridge' }>;
const isPull = (e: Effect): e is Pull => e.kind === 'shunt' || e.kind === 'leak' || e.kind === 'bridge';
const netsOf = (e: Pull): NetName[] => (e.kind === 'bridge' ? [e.netA, e.netB] : [e.net]);

/**
 * The faults that show within: those of what is near, and of what lies beyond one for each way in which something there pulls
 * at a net within, with the weight of all that do. Which of them it is, is asked once it leads: by what gets warm, by lifting.
 */
export function faultsWithin(board: Board, { nets, parts }: Neighbourhood, faults: readonly Fault[]): Fault[] {
  const drawn = new Set(board.parts.map((p) => p.ref));
  const own: Fault[] = [];
  const beyond = new Map<string, { net: NetName; pull: Pull; weight: number; parts: Set<string> }>();
  for (const fault of faults) {
    const pulls = fault.effects.filter(isPull);
    const [pull] = pulls.filter((e) => netsOf(e).some((net) => nets.has(net)));
    if (parts.has(fault.ref) || (!drawn.has(fault.ref) && (pull || pulls.length === 0))) own.push(fault);
    else if (pull) {
      const net = netsOf(pull).find((n) => nets.has(n))!;
      const key = `${net}/${pull.kind}${'ohm' in pull ? ` ${pull.ohm}` : ''}`;
      const group = beyond.get(key) ?? { net, pull, weight: 0, parts: new Set<string>() };
      group.parts.add(fault.ref);
      beyond.set(key, { ...group, weight: group.weight + fault.weight });
    }
  }
  const groups = [...beyond].map(([key, { net, pull, weight, parts: of }]): Fault => {
    const ref = `further off on ${net}`;
    // What it is joined with lies beyond too: at the net it reads as a way to ground.
    const effect: Effect =
      pull.kind === 'leak' ? { kind: 'leak', net } : { kind: 'shunt', net, ohm: pull.ohm, at: ref };
    return {
      ...{ id: `beyond/${key}`, ref, weight, effects: [effect], mendedBy: { kind: 'unlisted', net } },
      furtherOff: { net, parts: of.size },
      label: `${pull.kind === 'leak' ? 'A leak' : 'A short'} further off on ${net}: ${of.size === 1 ? [...of][0] : `one of ${of.size} parts`}`,
    };
  });
  return [...own, ...groups];
}

/** Whether a test is taken within: on a net or a part that is near. Tests of rails, functions and what is outside always are. */
export function isWithin({ nets, parts }: Neighbourhood, m: Measurement): boolean {
  if ('net' in m && m.net !== undefined && !nets.has(m.net)) return false;
  return !('ref' in m) || parts.has(m.ref) || 'net' in m;
}

/** What lies beyond and was read, named by a reading, or worked on. */
export function openedBy(
  board: Board,
  { nets, parts }: Neighbourhood,
  readings: readonly { readonly measurement: Measurement; readonly value: Value }[],
  worked: Iterable<string>,
): Opened {
  const ground = groundNet(board);
  const named = readings.flatMap(({ measurement: m, value }) => [
    ...('ref' in m ? [m.ref] : []),
    ...(value.kind === 'choice' ? [value.choice] : []),
  ]);
  const isBeyond = (ref: string): boolean => !parts.has(ref) && partByRef(board, ref) !== undefined;
  const read = readings.flatMap(({ measurement: m }) => ('net' in m && m.net !== undefined ? [m.net] : []));
  return {
    nets: [...new Set(read)].filter((net) => net !== ground && !nets.has(net)),
    parts: [...new Set([...named, ...worked])].filter(isBeyond),
  };
}
