import type { NetName, PartRef } from '../identities';

/** A pad as an open file gives it, in board coordinates: y down, seen from the front. */
export interface ForeignPad {
  /** Empty for holes that carry no number. */
  readonly pin: string;
  /** As it stands in the file; undefined for a pad that is connected to nothing. */
  readonly net?: NetName;
  readonly xMm: number;
  readonly yMm: number;
  /** Size along the board's axes where the part is turned by quarters, else along the pad's own. */
  readonly wMm: number;
  readonly hMm: number;
  readonly side: 'front' | 'back' | 'both';
  readonly holeMm?: number;
}

export interface ForeignPart {
  /** As it stands in the file. */
  readonly ref: PartRef;
  /** What the file calls it: value, part or comment; empty where it says nothing. */
  readonly value: string;
  readonly footprint: string;
  readonly xMm: number;
  readonly yMm: number;
  /** Clockwise, as the board format counts; 0 where only pads are known. */
  readonly rotationDeg: number;
  readonly side: 'front' | 'back';
  readonly pads: readonly ForeignPad[];
}

/** What an open file says of a board, before anything is inferred. */
export interface ForeignBoard {
  /** Undefined where the file has none: a box round the pads is taken then. */
  readonly outlineMm?: readonly (readonly [number, number])[];
  readonly thicknessMm?: number;
  readonly copperLayers?: number;
  readonly parts: readonly ForeignPart[];
  /** Pads and vias that belong to no part, for the nets that only they carry. */
  readonly loose: readonly ForeignPad[];
  readonly notes: readonly string[];
}

/** All nets that pads are on, each with its pads, in the order of the file. */
export function netsOf(board: ForeignBoard): Map<string, { readonly part: ForeignPart; readonly pad: ForeignPad }[]> {
  const nets = new Map<string, { part: ForeignPart; pad: ForeignPad }[]>();
  for (const part of board.parts)
    for (const pad of part.pads) {
      if (pad.net === undefined) continue;
      const list = nets.get(pad.net);
      if (list) list.push({ part, pad });
      else nets.set(pad.net, [{ part, pad }]);
    }
  return nets;
}

const middle = (values: readonly number[]): number => {
  let [low, high] = [Infinity, -Infinity];
  for (const v of values) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return (low + high) / 2;
};

/** The middle of the box round pads, mm. */
export const centreOf = (
  pads: readonly { readonly xMm: number; readonly yMm: number }[],
): { xMm: number; yMm: number } => ({
  xMm: middle(pads.map((p) => p.xMm)),
  yMm: middle(pads.map((p) => p.yMm)),
});
