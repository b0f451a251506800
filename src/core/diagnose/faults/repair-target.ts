import { memoriesOf, partByRef, type Board } from '../../board';
import { OUTSIDE, outsideFaultId, type OutsideThing } from './outside';

/** What work is done to: a part is replaced, an image rewritten, damage of the board mended, something outside exchanged. */
export type RepairTarget =
  | { readonly kind: 'part'; readonly ref: string }
  | { readonly kind: 'image'; readonly ref: string }
  /** The cracked trace to a rail. */
  | { readonly kind: 'rail'; readonly rail: string }
  /** What a screw pierced. */
  | { readonly kind: 'screw'; readonly screw: string }
  | { readonly kind: 'outside'; readonly what: OutsideThing }
  | { readonly kind: 'nothing' };

/**
 * A name by which targets are compared and by which a job's record holds what was cleared: a part, a rail or a screw by
 * its own name, an image as `U9/image`. It is made, never taken apart: {@link clearedTarget} looks it up.
 */
export function targetKey(target: RepairTarget): string {
  switch (target.kind) {
    case 'part':
      return target.ref;
    case 'image':
      return `${target.ref}/image`;
    case 'rail':
      return target.rail;
    case 'screw':
      return target.screw;
    case 'outside':
      return outsideFaultId(target.what);
    case 'nothing':
      return OUTSIDE;
  }
}

/** The part or memory that a target is about; none where it is about the board itself or nothing on it. */
export const targetRef = (target: RepairTarget): string | undefined =>
  target.kind === 'part' || target.kind === 'image' ? target.ref : undefined;

/** Everything on a board that work can be done to, by key; made once for a board. */
const targets = new WeakMap<Board, ReadonlyMap<string, RepairTarget>>();

/** The target on this board that has a key, or none. */
export function clearedTarget(board: Board, key: string): RepairTarget | undefined {
  let known = targets.get(board);
  if (!known) {
    const all: RepairTarget[] = [
      ...board.parts.map((p): RepairTarget => ({ kind: 'part', ref: p.ref })),
      ...memoriesOf(board).map((ref): RepairTarget => ({ kind: 'image', ref })),
      ...board.parts.filter((p) => p.kind === 'flash').map((p): RepairTarget => ({ kind: 'image', ref: p.ref })),
      ...board.rails.map((r): RepairTarget => ({ kind: 'rail', rail: r.id })),
      ...board.screws.map((s): RepairTarget => ({ kind: 'screw', screw: s.id })),
    ];
    known = new Map(all.map((t) => [targetKey(t), t]));
    targets.set(board, known);
  }
  return known.get(key);
}

/** The kind of part that a cleared target was, where it was one. */
export const clearedPart = (board: Board, key: string) => {
  const target = clearedTarget(board, key);
  const ref = target && targetRef(target);
  return ref === undefined ? undefined : partByRef(board, ref);
};
