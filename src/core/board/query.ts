import type { NetName, PartRef } from '../identities';
import { padsOf, type Pad } from './lands';
import type { Board, Part, Rail, Shield, Side, TestPoint } from './schema';

/** A place a probe can be put: a test point, or a pad of a part. */
export interface ProbePlace {
  /** What the bench calls it: `TP7`, `C14`, `U4.12`. */
  readonly name: string;
  readonly net: NetName;
  readonly xMm: number;
  readonly yMm: number;
  readonly side: Side;
}

interface Lookup {
  readonly ground: string;
  readonly parts: ReadonlyMap<string, Part>;
}

/** Look-ups per board file, made once: prediction asks for them hundreds of thousands of times. */
const lookups = new WeakMap<Board, Lookup>();

function lookup(board: Board): Lookup {
  let found = lookups.get(board);
  if (!found) {
    const ground = Object.keys(board.nets).find((n) => board.nets[n].role === 'ground')!;
    lookups.set(board, (found = { ground, parts: new Map(board.parts.map((p) => [p.ref, p])) }));
  }
  return found;
}

export const groundNet = (board: Board): string => lookup(board).ground;

export const partByRef = (board: Board, ref: PartRef): Part | undefined => lookup(board).parts.get(ref);

/** A name as a person types it: as it stands, else without regard to capitals where only one is so. */
export function named(names: Iterable<string>, text: string): string | undefined {
  const like: string[] = [];
  for (const name of names) {
    if (name === text) return name;
    if (name.toUpperCase() === text.toUpperCase()) like.push(name);
  }
  return like.length === 1 ? like[0] : undefined;
}

/** The part, net or pin that a person means; names are matched without regard to capitals where that is clear. */
export function partNamed(board: Board, text: string): Part | undefined {
  const ref = named(lookup(board).parts.keys(), text);
  return ref === undefined ? undefined : partByRef(board, ref);
}
export const netNamed = (board: Board, text: string): string | undefined => named(Object.keys(board.nets), text);
export const pinNamed = (part: Part, text: string): string | undefined => named(Object.keys(part.pins), text);

/** The memories that hold the images of the ports' controllers, each once. */
export const memoriesOf = (board: Board): string[] => [
  ...new Set(board.ports.flatMap((p) => (p.imagePart === undefined ? [] : [p.imagePart]))),
];

export const railOfNet = (board: Board, net: NetName): Rail | undefined => board.rails.find((r) => r.net === net);

export const isTwoTerminal = (part: Part): boolean =>
  part.kind === 'fuse' || part.kind === 'coil' || part.kind === 'resistor' || part.kind === 'capacitor';

const placeOfPoint = (p: TestPoint): ProbePlace => ({ name: p.id, net: p.net, xMm: p.xMm, yMm: p.yMm, side: p.side });

function placeOfPad(part: Part, pad: Pad, name: string): ProbePlace {
  return { name, net: part.pins[pad.pin], xMm: pad.xMm, yMm: pad.yMm, side: part.side };
}

/** The pad of a two-terminal part that is not on ground; pin 1 where neither is. */
export function hotPad(board: Board, part: Part): Pad {
  const ground = groundNet(board);
  const pads = padsOf(board, part);
  return pads.find((p) => part.pins[p.pin] !== undefined && part.pins[p.pin] !== ground) ?? pads[0];
}

/**
 * Finds what a person means by a name: a test point, a part (its hot pad), a pin as `U4.12`, or a net (its
 * handiest place). Names are matched without regard to case.
 */
export function findPlace(board: Board, text: string): ProbePlace | undefined {
  const id = named(
    board.points.map((p) => p.id),
    text,
  );
  const point = board.points.find((p) => p.id === id);
  if (point) return placeOfPoint(point);
  const part = partNamed(board, text);
  if (part) return placeOfPad(part, hotPad(board, part), part.ref);
  const net = netNamed(board, text);
  if (net !== undefined) return handiestPlace(board, net);
  const at = text.lastIndexOf('.');
  const owner = at > 0 ? partNamed(board, text.slice(0, at)) : undefined;
  const pin = owner && pinNamed(owner, text.slice(at + 1));
  const pad = owner && padsOf(board, owner).find((p) => p.pin === pin);
  return owner && pad ? placeOfPad(owner, pad, `${owner.ref}.${pad.pin}`) : undefined;
}

/** The shield that a place lies under. */
export const shieldOver = (
  board: Board,
  { xMm, yMm, side }: { readonly xMm: number; readonly yMm: number; readonly side: Side },
): Shield | undefined =>
  board.shields.find(
    (s) => s.side === side && Math.abs(xMm - s.xMm) <= s.sizeMm[0] / 2 && Math.abs(yMm - s.yMm) <= s.sizeMm[1] / 2,
  );

/** Where a net is best probed: a test point, else a capacitor, else any pad; nearest to `near` where given, and never under a shield where it can be had without. */
export function handiestPlace(board: Board, net: NetName, near?: { xMm: number; yMm: number }): ProbePlace | undefined {
  const free = (places: ProbePlace[]): ProbePlace[] => places.filter((p) => !shieldOver(board, p));
  const points = board.points.filter((p) => p.net === net).map(placeOfPoint);
  if (free(points).length > 0) return nearest(free(points), near);
  const parts = board.parts.filter((p) => Object.values(p.pins).includes(net));
  const capacitors = parts.filter((p) => p.kind === 'capacitor');
  const placed = (capacitors.length > 0 ? capacitors : parts).filter((p) => !p.assumed?.includes('place'));
  const places = (placed.length > 0 ? placed : capacitors.length > 0 ? capacitors : parts).map((part) => {
    const pad = padsOf(board, part).find((p) => part.pins[p.pin] === net)!;
    return placeOfPad(
      part,
      pad,
      part.kind === 'capacitor' && hotPad(board, part).pin === pad.pin ? part.ref : `${part.ref}.${pad.pin}`,
    );
  });
  return nearest(free(places), near) ?? nearest([...points, ...places], near);
}

/** The pin of a port's connector on a net, where diode mode is read. */
export function portPin(board: Board, net: NetName): ProbePlace | undefined {
  for (const { id } of board.ports) {
    const part = partByRef(board, id)!;
    const pad = padsOf(board, part).find((p) => part.pins[p.pin] === net);
    if (pad) return placeOfPad(part, pad, `${id}.${pad.pin}`);
  }
  return undefined;
}

function nearest(places: ProbePlace[], near?: { xMm: number; yMm: number }): ProbePlace | undefined {
  if (!near) return places[0];
  const distance = (p: ProbePlace): number => Math.hypot(p.xMm - near.xMm, p.yMm - near.yMm);
  return [...places].sort((a, b) => distance(a) - distance(b))[0];
}

/** Outline bounds in mm. */
export function outlineBox(board: Board): { x0: number; y0: number; x1: number; y1: number } {
  const xs = board.outlineMm.map((p) => p[0]);
  const ys = board.outlineMm.map((p) => p[1]);
  return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}

/** Whether a board only stands in for one that nobody has named: even its circuit is assumed. */
export const isStandIn = (board: Pick<Board, 'assumed'>): boolean => board.assumed?.includes('circuit') === true;
