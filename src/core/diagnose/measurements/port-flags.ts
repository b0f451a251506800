import { partByRef, type Board } from '../../board';
import type { Effect, OutsideThing } from '../faults';

/** What the port's tests ask of effects beside the power solution. */
export interface PortFlags {
  /** 1 a poor charger, 2 a poor cable, else 0. */
  readonly supply: number;
  readonly thing?: OutsideThing;
  readonly bits: number;
}

const IMAGE = 1;
const LOAD = 2;
const MISSING = 4;
/** The contact of the CC line in use is dirty. */
export const DIRTY = 8;
/** A contact of the port is open. */
export const CONTACT = 16;
/** Above every bit. */
export const ALL_BITS = 32;

/** @param cc the CC line of the plug way in use. */
export function portFlags(board: Board, effects: readonly Effect[], cc: string): PortFlags {
  const outside = effects.find((e) => e.kind === 'outside');
  return {
    supply: outside?.what === 'charger' ? 1 : outside?.what === 'cable' ? 2 : 0,
    thing: outside?.what,
    bits: effects.reduce((all, e) => all | bitOf(board, e, cc), 0),
  };
}

function bitOf(board: Board, e: Effect, cc: string): number {
  switch (e.kind) {
    case 'imageBad':
      return IMAGE;
    case 'load':
      return LOAD;
    case 'dirty':
      return e.net === cc ? DIRTY : 0;
    case 'pinOpen':
      return CONTACT;
    case 'dead':
    case 'open':
      return partByRef(board, e.ref)?.required === true ? MISSING : 0;
    default:
      return 0;
  }
}

/** One number for the two supplies of a pair, 0 where both are sound. */
export const suppliesOf = (x: PortFlags, y: PortFlags): number =>
  3 * Math.min(x.supply, y.supply) + Math.max(x.supply, y.supply);
