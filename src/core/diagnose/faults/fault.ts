import type { Part, PlugSide } from '../../board';
import type { OutsideThing } from './outside';
import type { RepairTarget } from './repair-target';
import type { HistoryFlag } from './story';

/** What a fault does to the board. A double fault is the union of two lists. */
export type Effect =
  /** @property at what the current of the short flows through: the part that holds it, or the screw. */
  | { readonly kind: 'shunt'; readonly net: string; readonly ohm: number; readonly at: string }
  | {
      readonly kind: 'bridge';
      readonly netA: string;
      readonly netB: string;
      readonly ohm: number;
      readonly at: string;
    }
  | { readonly kind: 'open'; readonly element: string; readonly ref: string }
  | { readonly kind: 'dead'; readonly ref: string }
  /** A controller that no longer runs, though its own always-on regulator still does. */
  | { readonly kind: 'coreDead'; readonly ref: string }
  | { readonly kind: 'ccDead'; readonly ref: string; readonly side: PlugSide }
  | { readonly kind: 'imageBad'; readonly ref: string }
  /** One contact of a connector, or all contacts of its net where no pin is named. */
  | { readonly kind: 'pinOpen'; readonly ref: string; readonly net: string; readonly pin?: string }
  /** The input structures of a chip are gone: its signal pins no longer read a normal drop. */
  | { readonly kind: 'inputs'; readonly ref: string }
  /** The processor's side takes current before anything boots. */
  | { readonly kind: 'load'; readonly ref: string }
  /** A contact that touches badly: it comes and goes. */
  | { readonly kind: 'dirty'; readonly ref: string; readonly net: string }
  /** A diode path to ground beside the normal one: diode mode reads low. */
  | { readonly kind: 'leak'; readonly net: string }
  /** A rail that is cut off from what feeds it. */
  | { readonly kind: 'cut'; readonly rail: string }
  | { readonly kind: 'outside'; readonly what: OutsideThing }
  | { readonly kind: 'stuckOn'; readonly ref: string };

export interface Fault {
  /** Stable name, for example `U4/short/AON33`. */
  readonly id: string;
  readonly ref: string;
  /** In words, for the suspects' list: `U4 port controller, shorted to ground at AON33`. */
  readonly words: string;
  readonly effects: readonly Effect[];
  /** Relative prior weight, before the owner's story is counted. */
  readonly weight: number;
  /** What mends it. */
  readonly mendedBy: RepairTarget;
  /** Of a part that was newly fitted: it counts only from then on. */
  readonly fresh?: boolean;
  /** The story that makes this fault much likelier. */
  readonly story?: HistoryFlag;
}

/** A board on which nothing is wrong. */
export const SOUND: Fault = {
  id: 'sound',
  ref: '',
  words: 'sound',
  weight: 0,
  effects: [],
  mendedBy: { kind: 'nothing' },
};

/** A typical short, ohm: the middle of the 0.5–5 Ω that shorted parts read (common practice, no source). */
export const SHORT_OHM = 1.6;

/** A fault of a part, mended by a new part where nothing else is said. */
export function faultOf(
  part: Part,
  mode: string,
  words: string,
  weight: number,
  effects: readonly Effect[],
  mendedBy: RepairTarget = { kind: 'part', ref: part.ref },
): Fault {
  return {
    id: `${part.ref}/${mode}`,
    ref: part.ref,
    words: `${part.ref} ${part.what}, ${words}`,
    weight,
    effects,
    mendedBy,
  };
}

/** A fault no longer counts once its part is off, replaced, or the fault itself is mended; a new part's own faults begin then. */
export function isGone(fault: Fault, absent: ReadonlySet<string>, cleared: ReadonlySet<string>): boolean {
  if (fault.ref !== '' && absent.has(fault.ref)) return true;
  if (fault.fresh) return !cleared.has(fault.ref);
  return cleared.has(fault.ref) || cleared.has(fault.id);
}
