import type { NetName, PartRef, RailId } from '../../identities';
import { memoriesOf, partByRef, type Board } from '../../board';
import { OUTSIDE, outsideFaultId, type OutsideThing } from './outside';

/** What work is done to: a part is replaced, an image rewritten, damage of the board mended, something outside exchanged. */
export type RepairTarget =
  | { readonly kind: 'part'; readonly ref: PartRef }
  | { readonly kind: 'image'; readonly ref: PartRef }
  /** The cracked trace to a rail. */
  | { readonly kind: 'rail'; readonly rail: RailId }
  /** What a screw pierced. */
  | { readonly kind: 'screw'; readonly screw: string }
  /** The joints of a part: touched up or flowed again. @property fitting of which new part, where it is one. */
  | { readonly kind: 'joints'; readonly ref: PartRef; readonly fitting?: number }
  /** The contacts of a connector are cleaned. */
  | { readonly kind: 'contacts'; readonly ref: PartRef }
  /** What the device runs on is restored. */
  | { readonly kind: 'software' }
  /** What no list holds, at a net or not drawn at all: there is no work to name. */
  | { readonly kind: 'unlisted'; readonly net: NetName | null }
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
    case 'joints':
      return `${target.ref}${target.fitting === undefined ? '' : `@${target.fitting}`}${JOINTS}`;
    case 'contacts':
      return `${target.ref}/contacts`;
    case 'software':
      return 'software';
    case 'unlisted':
      return `unlisted/${target.net ?? ''}`;
    case 'outside':
      return outsideFaultId(target.what);
    case 'nothing':
      return OUTSIDE;
  }
}

const JOINTS = '/joints';

/** The part whose joints a key names; none where it names something else. */
export const jointsOf = (key: string): string | undefined =>
  key.endsWith(JOINTS) ? key.slice(0, -JOINTS.length) : undefined;

/**
 * The key under which work that is done now is kept: the joints of a part are those of the one that is on the board.
 * @param replaced what was replaced before, a part as often as it was.
 */
export function currentKey(target: RepairTarget, replaced: readonly string[]): string {
  if (target.kind !== 'joints') return targetKey(target);
  const fitting = replaced.filter((key) => key === target.ref).length;
  return targetKey(fitting === 0 ? target : { ...target, fitting });
}

/** The part or memory that a target is about; none where it is about the board itself or nothing on it. */
export const targetRef = (target: RepairTarget): string | undefined =>
  target.kind === 'part' || target.kind === 'image' || target.kind === 'joints' || target.kind === 'contacts'
    ? target.ref
    : undefined;

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
      ...board.parts.map((p): RepairTarget => ({ kind: 'joints', ref: p.ref })),
      ...board.parts.filter((p) => p.kind === 'connector').map((p): RepairTarget => ({ kind: 'contacts', ref: p.ref })),
      { kind: 'software' },
      ...board.screws.map((s): RepairTarget => ({ kind: 'screw', screw: s.id })),
    ];
    known = new Map(all.map((t) => [targetKey(t), t]));
    targets.set(board, known);
  }
  // The joints of a new part are those of that place.
  return known.get(key) ?? known.get(key.replace(/@\d+(?=\/joints$)/, ''));
}

/** The kind of part that a cleared target was, where it was one. */
export const clearedPart = (board: Board, key: string) => {
  const target = clearedTarget(board, key);
  const ref = target && targetRef(target);
  return ref === undefined ? undefined : partByRef(board, ref);
};
