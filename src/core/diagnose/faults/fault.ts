import type { NetName, PartRef, RailId } from '../../identities';
import type { Part, PlugSide } from '../../board';
import type { OutsideThing } from './outside';
import { targetKey, type RepairTarget } from './repair-target';
import type { HistoryFlag } from './story';

/** What a fault does to the board. A double fault is the union of two lists. */
export type Effect =
  /** @property at what the current of the short flows through: the part that holds it, or the screw. */
  | { readonly kind: 'shunt'; readonly net: NetName; readonly ohm: number; readonly at: string }
  | {
      readonly kind: 'bridge';
      readonly netA: string;
      readonly netB: string;
      readonly ohm: number;
      readonly at: string;
    }
  | { readonly kind: 'open'; readonly element: string; readonly ref: PartRef }
  | { readonly kind: 'dead'; readonly ref: PartRef }
  /** A controller that no longer runs, though its own always-on regulator still does. */
  | { readonly kind: 'coreDead'; readonly ref: PartRef }
  | { readonly kind: 'ccDead'; readonly ref: PartRef; readonly side: PlugSide }
  | { readonly kind: 'imageBad'; readonly ref: PartRef }
  /** One contact of a connector, or all contacts of its net where no pin is named. */
  | { readonly kind: 'pinOpen'; readonly ref: PartRef; readonly net: NetName; readonly pin?: string }
  /** The input structures of a chip are gone: its signal pins no longer read a normal drop. */
  | { readonly kind: 'inputs'; readonly ref: PartRef }
  /** The processor's side takes current before anything boots. */
  | { readonly kind: 'load'; readonly ref: PartRef }
  /** A contact that touches badly: it comes and goes. */
  | { readonly kind: 'dirty'; readonly ref: PartRef; readonly net: NetName }
  /** A diode path to ground beside the normal one: diode mode reads low. */
  | { readonly kind: 'leak'; readonly net: NetName }
  /** A rail that is cut off from what feeds it. */
  | { readonly kind: 'cut'; readonly rail: RailId }
  | { readonly kind: 'outside'; readonly what: OutsideThing }
  | { readonly kind: 'stuckOn'; readonly ref: PartRef }
  /** One joint of a part that does not conduct: the part is without this net, which reads as without it at every other point. */
  | { readonly kind: 'jointOpen'; readonly ref: PartRef; readonly pin: string; readonly net: NetName }
  /** A resistor that has left its value. @property factor its resistance against the one it should have. */
  | { readonly kind: 'drift'; readonly element: string; readonly ref: PartRef; readonly factor: number }
  /** What shows at a part's joints to the eye and to a finger, and to nothing else. */
  | { readonly kind: 'visible'; readonly ref: PartRef; readonly as: 'open' | 'bridge' | 'crack' | 'moved' | 'reversed' }
  /** What the device runs on is damaged: functions fail whatever the board does. */
  | { readonly kind: 'software' };

export interface Fault {
  /** Stable name, for example `U4/short/AON33`. */
  readonly id: string;
  /** The part; the rail or the screw of what is no part's; empty for none. */
  readonly ref: string;
  /** In words, for the suspects' list: `U4 port controller, shorted to ground at AON33`. */
  readonly label: string;
  readonly effects: readonly Effect[];
  /** Relative prior weight, before the owner's story is counted. */
  readonly weight: number;
  /** What mends it. */
  readonly mendedBy: RepairTarget;
  /**
   * Of a part that was newly fitted: the how manieth new one it is, from 1. It counts from its fitting until the next one.
   */
  readonly fitting?: number;
  /** Of a newly fitted part: chance that this fitting brought it about. */
  readonly rate?: number;
  /** Of a contact that comes and goes: share of the readings that meet it. */
  readonly seen?: number;
  /** Set for what no list holds: something at this net, or something that is not drawn at all (null). */
  readonly unlistedAt?: string | null;
  /** Set for a group: any of so many parts further off on a large board that pulls at this net. */
  readonly furtherOff?: { readonly net: NetName; readonly parts: number };
  /** The story that makes this fault much likelier. */
  readonly story?: HistoryFlag;
}

/** A board on which nothing is wrong. */
export const SOUND: Fault = {
  id: 'sound',
  ref: '',
  label: 'sound',
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
    label: `${part.ref} ${part.what}, ${words}`,
    weight,
    effects,
    mendedBy,
  };
}

/** The name under which the n-th piece of work on a target stands among what was cleared: `U4`, then `U4#2`. */
export const workName = (key: string, nth: number): string => (nth === 1 ? key : `${key}#${nth}`);

/** Every piece of work by its own name: what was done twice stands twice in the list. */
export function workNames(done: Iterable<string>): string[] {
  const times = new Map<string, number>();
  return Array.from(done, (key) => {
    const nth = (times.get(key) ?? 0) + 1;
    times.set(key, nth);
    return workName(key, nth);
  });
}

/**
 * A fault no longer counts once its part is off, replaced, or what mends the fault was done. The faults of a new part
 * begin with its fitting and end with the next.
 * @param cleared what was done, by {@link workNames}.
 */
export function isGone(fault: Fault, absent: ReadonlySet<PartRef>, cleared: ReadonlySet<string>): boolean {
  const { ref, fitting } = fault;
  if (ref !== '' && absent.has(ref)) return true;
  const { mendedBy } = fault;
  const byOther = mendedBy.kind !== 'part' || mendedBy.ref !== ref;
  const mended = cleared.has(fault.id) || (byOther && cleared.has(targetKey(mendedBy)));
  if (fitting === undefined) return mended || cleared.has(ref);
  return mended || !cleared.has(workName(ref, fitting)) || cleared.has(workName(ref, fitting + 1));
}
