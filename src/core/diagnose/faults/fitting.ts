import type { PartRef } from '../../identities';
import { groundNet, partByRef, type Board, type Part } from '../../board';
import { SHORT_OHM, faultOf, type Effect, type Fault } from './fault';
import { missedJoints } from './joints';

/**
 * Chances that one fitting of a part leaves each of these behind. Engineering estimates, after common practice that joints,
 * not chips, are what fails after a swap.
 */
const RATE = {
  deadOnArrival: 0.02,
  wrongType: 0.004,
  reversed: 0.002,
  /** One joint, by how the part stands on the board. */
  joint: { array: 0.005, leadless: 0.002, leads: 0.001 },
  /** Solder between two neighbouring joints. */
  bridge: 0.001,
  /** A part beside it that was moved off its pads or blown away. */
  neighbour: 0.005,
};
/** Parts this close to the one that is heated can move, mm. Engineering estimate. */
const NEIGHBOUR_MM = 2;

/** Kinds that have no sense of direction, and none of which a wrong type is a different chip. */
const PASSIVE: ReadonlySet<Part['kind']> = new Set(['capacitor', 'resistor', 'coil', 'fuse', 'crystal', 'lineFilter']);

/**
 * What the n-th new part at a place may have wrong with it: bad out of the packet, of the wrong type, the wrong way round,
 * a joint open or two joined, a neighbour moved.
 * @param own the faults that a part at this place can have by itself.
 */
export function fittingFaults(board: Board, ref: PartRef, nth: number, own: readonly Fault[]): Fault[] {
  const part = partByRef(board, ref);
  if (!part) return [];
  const name = nth === 1 ? `New ${ref}` : `New ${ref}, ${ordinal(nth)} one`;
  const total = own.reduce((sum, f) => sum + f.weight, 0);
  const dead = own.map((f) => ({
    ...f,
    id: `${f.id}/new${nth}`,
    label: f.label.replace(ref, name),
    rate: (RATE.deadOnArrival * f.weight) / total,
    mendedBy: f.mendedBy.kind === 'joints' ? ({ kind: 'part', ref } as const) : f.mendedBy,
  }));
  const made = (
    mode: string,
    words: string,
    rate: number,
    effects: readonly Effect[],
    mendedBy?: Fault['mendedBy'],
  ) => ({
    ...faultOf(part, `${mode}/new${nth}`, '', 0, effects, mendedBy),
    label: `${name}, ${words}`,
    rate,
  });
  const gone: Effect[] = [{ kind: 'dead', ref }];
  const kinds = PASSIVE.has(part.kind)
    ? []
    : [
        made('type', 'of the wrong type', RATE.wrongType, gone),
        made('reversed', 'the wrong way round', RATE.reversed, [...gone, { kind: 'visible', ref, as: 'reversed' }]),
      ];
  const target = { kind: 'joints', ref, fitting: nth } as const;
  const joints = missedJoints(board, part).map(({ pin, effects }) =>
    made(`joint/${pin}`, `joint ${pin} ${part.pins[pin]} open`, jointRate(board, part), effects, target),
  );
  const bridges = neighbouringPins(part).map(([a, b]) =>
    made(`bridge/${a}-${b}`, `joints ${a} and ${b} joined`, RATE.bridge, joined(board, part, a, b), target),
  );
  const moved = movable(board, part).map((other) =>
    made(
      `moved/${other.ref}`,
      `${other.ref} beside it moved or lost`,
      RATE.neighbour,
      [
        { kind: 'open', element: other.ref, ref: other.ref },
        { kind: 'visible', ref, as: 'moved' },
      ],
      { kind: 'part', ref: other.ref },
    ),
  );
  return [...dead, ...kinds, ...joints, ...bridges, ...moved].map((f) => ({ ...f, fitting: nth }));
}

const ordinal = (n: number): string => ['first', 'second', 'third', 'fourth', 'fifth'][n - 1] ?? `${n}th`;

function jointRate(board: Board, part: Part): number {
  const pack = board.packages[part.package];
  if (pack?.lands.kind === 'array') return RATE.joint.array;
  // Leads reach out beyond the body; leadless pads lie under its edge.
  const hasLeads = pack?.lands.kind === 'dual' && pack.lands.spanMm > pack.bodyMm[0] + pack.lands.padMm[0];
  return hasLeads ? RATE.joint.leads : RATE.joint.leadless;
}

/** Pins that stand beside each other by number and carry different nets. */
function neighbouringPins(part: Part): [string, string][] {
  const pins = Object.keys(part.pins).filter((pin) => /^\d+$/.test(pin));
  if (pins.length < 6) return [];
  return pins.flatMap((pin): [string, string][] => {
    const next = String(Number(pin) + 1);
    const other = part.pins[next];
    return other !== undefined && other !== part.pins[pin] ? [[pin, next]] : [];
  });
}

function joined(board: Board, part: Part, a: string, b: string): Effect[] {
  const ground = groundNet(board);
  const [netA, netB] = [part.pins[a], part.pins[b]];
  const at = part.ref;
  const seen: Effect = { kind: 'visible', ref: at, as: 'bridge' };
  if (netA === ground || netB === ground)
    return [{ kind: 'shunt', net: netA === ground ? netB : netA, ohm: SHORT_OHM, at }, seen];
  return [{ kind: 'bridge', netA, netB, ohm: SHORT_OHM, at }, seen];
}

/** Small parts beside one whose loss is missed. */
const movable = (board: Board, part: Part): Part[] =>
  board.parts.filter(
    (p) =>
      p.ref !== part.ref &&
      p.side === part.side &&
      (p.kind === 'resistor' || p.kind === 'coil' || p.kind === 'fuse') &&
      Math.hypot(p.xMm - part.xMm, p.yMm - part.yMm) <= NEIGHBOUR_MM + reachMm(board, part),
  );

/** Half of a body's longer side, mm. */
function reachMm(board: Board, part: Part): number {
  const size = board.packages[part.package]?.bodyMm;
  return size ? Math.max(size[0], size[1]) / 2 : 0;
}
