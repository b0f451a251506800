import type { PartRef } from '../identities';
import { groundNet, type Board, type Part } from '../board';

/** A resistance between two nets. `id` is the part, or the part and line as `FL1:a`. */
export interface Element {
  readonly id: string;
  readonly ref: PartRef;
  readonly a: string;
  readonly b: string;
  readonly ohm: number;
  /** 95 of 100 boards lie within this factor of it; none where it is known. */
  readonly within?: number;
}

/** Normal series resistances, ohm. Source: common practice, typical data-sheet magnitudes. */
const FUSE_OHM = 0.02;
const FILTER_LINE_OHM = 0.2;
const COIL_OHM = 0.05;

/** The resistances that a sound part puts between its nets, its loads to ground included. */
export function elementsOf(board: Board, part: Part): Element[] {
  const ground = groundNet(board);
  const series = (line: string, pinA: string, pinB: string, ohm: number): Element[] => {
    const a = part.pins[pinA];
    const b = part.pins[pinB];
    return a && b && a !== b ? [{ id: line ? `${part.ref}:${line}` : part.ref, ref: part.ref, a, b, ohm }] : [];
  };
  const loads = Object.entries(part.loadsOhm).map(([net, ohm]) => ({
    id: `${part.ref}~${net}`,
    ref: part.ref,
    a: net,
    b: ground,
    ohm,
    ...(part.loadsWithin?.[net] !== undefined && { within: part.loadsWithin[net] }),
  }));
  switch (part.kind) {
    case 'fuse':
      return [...series('', '1', '2', FUSE_OHM), ...loads];
    case 'coil':
      return [...series('', '1', '2', COIL_OHM), ...loads];
    case 'resistor':
      return [...series('', '1', '2', part.ohm ?? 1), ...loads];
    case 'lineFilter':
      return [...series('a', '1', '2', FILTER_LINE_OHM), ...series('b', '3', '4', FILTER_LINE_OHM), ...loads];
    default:
      return loads;
  }
}

/** All resistances of the board without the parts that are off. */
export function boardElements(board: Board, absent: ReadonlySet<PartRef>): Element[] {
  return board.parts.filter((p) => !absent.has(p.ref)).flatMap((p) => elementsOf(board, p));
}
