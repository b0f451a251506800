import type { NetName } from '../identities';
import { groundNet, handiestPlace, padsOf, type Board, type Part, type ProbePlace } from '../board';
import type { ReferenceStats } from '../reference';
import { formatDrop } from '../units';
import { expectedDrop, GROUND_V, SHORTED_V, TWIN_V, WRONG_SIGN_V, type PinValue, type PinVerdict } from './judge';

/** One joint of a placed part, as the walk comes to it. */
export interface Joint {
  readonly pin: string;
  readonly net: NetName;
  /** Sides are counted from pin 1 as the pins are; 0 where they cannot be told apart. */
  readonly side: number;
  /** Joints next to it on its side. */
  readonly beside: readonly string[];
  /** Where the probe goes instead: balls cannot be touched, and stand for all balls of their net. */
  readonly instead?: ProbePlace;
}

/**
 * The joints of a part in the order of the walk, side by side from pin 1. Pins that are joined to nothing and the hidden
 * centre pad are left out; of balls one for each net, read where the net is best probed near the part.
 */
export function jointsOf(board: Board, part: Part): Joint[] {
  const { lands } = board.packages[part.package];
  const pads = padsOf(board, part).filter((p) => p.pin !== 'EP');
  if (lands.kind === 'array') {
    const ground = groundNet(board);
    const first = new Map<string, string>();
    for (const { pin } of pads) {
      const net = part.pins[pin];
      if (net !== undefined && net !== ground && !first.has(net)) first.set(net, pin);
    }
    return [...first].map(([net, pin]) => ({
      pin,
      net,
      side: 0,
      beside: [],
      instead: handiestPlace(board, net, part),
    }));
  }
  const sides = { quad: 4, dual: 2, two: 1, list: 1 }[lands.kind];
  const perSide = Math.ceil(pads.length / sides);
  const sideOf = (i: number): number => Math.floor(i / perSide);
  return pads.flatMap(({ pin }, i) => {
    const net = part.pins[pin];
    if (net === undefined) return [];
    const beside = [i - 1, i + 1].filter((k) => pads[k] && sideOf(k) === sideOf(i) && lands.kind !== 'two');
    return [{ pin, net, side: sides > 1 ? sideOf(i) + 1 : 0, beside: beside.map((k) => pads[k].pin) }];
  });
}

/** What else was read when a joint is judged. */
export interface AroundJoint {
  readonly stats?: ReferenceStats;
  /** Joints next to it, with what they read where they were read. */
  readonly beside?: readonly { readonly pin: string; readonly net?: NetName; readonly value?: PinValue }[];
  /** The same net read elsewhere. */
  readonly sameNet?: readonly PinValue[];
}

/** Judges one joint against good boards, the board file, its neighbours and the rest of its net. */
export function judgeJoint(
  board: Board,
  net: NetName,
  value: PinValue,
  { stats, beside = [], sameNet = [] }: AroundJoint = {},
): PinVerdict {
  const ground = groundNet(board);
  const expected = expectedDrop(board, { net }, stats);
  const rests = expected ? [expected.label] : [];
  const verdict = (state: 'good' | 'bad', label: string): PinVerdict => ({ state, label, rests, behind: [] });
  const bad = (words: string): PinVerdict => verdict('bad', words);
  if (net === ground) {
    return value.kind === 'figure' && Math.abs(value.value) <= GROUND_V
      ? verdict('good', 'ground')
      : bad('does not reach ground: touch it up');
  }
  if (value.kind === 'open') {
    if (sameNet.some((v) => v.kind === 'figure')) return bad('open here alone: this joint does not hold, touch it up');
    return expected ? bad('open: the joint, or what the chip shows behind it') : verdict('good', 'open');
  }
  if (value.value < WRONG_SIGN_V) return bad('wrong sign: the part is damaged, or lies the wrong way round');
  if (value.value < SHORTED_V && !board.nets[net].lowByNature) {
    const grounded = beside.find((b) => b.net === ground);
    return bad(grounded ? `shorted to ground: a bridge to joint ${grounded.pin}?` : 'shorted to ground');
  }
  if (expected && value.value < expected.low) {
    const alike = beside.find(
      (b) => b.net !== net && b.value?.kind === 'figure' && Math.abs(b.value.value - value.value) <= TWIN_V,
    );
    return bad(alike ? `reads as joint ${alike.pin} does: a bridge between them?` : 'low: a bridge, or the part leaks');
  }
  if (expected && value.value > expected.high) return bad('high: the joint, or a path behind it, is missing');
  return verdict('good', expected ? 'normal' : `${formatDrop(value.value)}, no figure to hold it against`);
}
