import type { NetName, PartRef } from '../../identities';
import { groundNet, type Board, type Part } from '../../board';
import { faultOf, type Effect, type Fault } from './fault';

/** Joints of one part that do not conduct, and what the part does without them. */

/** Odds of one joint of a part as it came, and of a cracked row of joints under a large one. Engineering estimates. */
const WEIGHT = { joint: 0.04, crack: 0.3 };

/** From so many pins on a part is large enough to crack its joints when the board bends. Engineering estimate. */
const LARGE_FROM_PINS = 16;

/** A cracked joint meets half of the readings: it comes and goes. Engineering estimate. */
const CRACK_SEEN = 0.5;

/** What a part lacks when one of its joints is open; nothing where other pins of it carry the same net, or nobody asks. */
export function withoutJoint(board: Board, part: Part, pin: string): readonly Effect[] {
  const net = part.pins[pin];
  const { ref } = part;
  if (net === undefined || net === groundNet(board)) return [];
  if (Object.entries(part.pins).some(([other, n]) => n === net && other !== pin)) return [];
  const joint: readonly Effect[] = [
    { kind: 'jointOpen', ref, pin, net },
    { kind: 'visible', ref, as: 'open' },
  ];
  if (part.loadsOhm[net] !== undefined)
    return [...joint, { kind: 'open', element: `${ref}~${net}`, ref }, { kind: 'dead', ref }];
  const talk = board.ports.flatMap((port) =>
    port.controller === ref
      ? port.sides.filter((s) => s.ccNet === net).map((s): Effect => ({ kind: 'ccDead', ref, side: s.side }))
      : [],
  );
  if (talk.length > 0) return [...joint, ...talk];
  const memory = board.ports.map((p) => p.imagePart).find((m) => m !== undefined && joinsMemory(board, m, part, net));
  if (memory !== undefined) return [...joint, { kind: 'imageBad', ref: memory }];
  const isUsed = board.functions.some((f) => f.parts.includes(ref)) && board.nets[net].role === 'signal';
  return isUsed ? joint : [];
}

/** True for a line between the memory of an image and its controller. */
function joinsMemory(board: Board, memory: string, part: Part, net: NetName): boolean {
  const users = board.ports.filter((p) => p.imagePart === memory).map((p) => p.controller);
  if (part.ref !== memory && !users.includes(part.ref)) return false;
  const has = (ref: PartRef): boolean => {
    const other = board.parts.find((p) => p.ref === ref);
    return other !== undefined && Object.values(other.pins).includes(net);
  };
  return board.nets[net].role === 'signal' && has(memory) && users.some(has);
}

/** Every joint of a part whose loss is missed, with what it does. */
export const missedJoints = (
  board: Board,
  part: Part,
): { readonly pin: string; readonly effects: readonly Effect[] }[] =>
  Object.keys(part.pins)
    .map((pin) => ({ pin, effects: withoutJoint(board, part, pin) }))
    .filter(({ effects }) => effects.length > 0);

/** Open joints and cracks of the chips that a board came with: after a fall, a bend, an earlier repair. */
export function jointFaults(board: Board): Fault[] {
  const chips = board.parts.filter((p) => Object.keys(p.pins).length >= 6 && !isConnector(p));
  return chips.flatMap((part): Fault[] => {
    const target = { kind: 'joints', ref: part.ref } as const;
    const single = missedJoints(board, part)
      // Supplies that lost their pad are listed with the part's own faults.
      .filter(({ effects }) => !effects.some((e) => e.kind === 'open'))
      .map(({ pin, effects }): Fault => ({
        ...faultOf(part, `joint/${pin}`, `joint ${pin} ${part.pins[pin]} open`, WEIGHT.joint, effects, target),
        story: 'earlierRepair',
      }));
    if (Object.keys(part.pins).length < LARGE_FROM_PINS) return single;
    const crack: Fault = {
      ...faultOf(part, 'crack', 'joints cracked, it comes and goes', WEIGHT.crack, crackedJoints(part), target),
      seen: CRACK_SEEN,
      story: 'bend',
    };
    return [...single, crack];
  });
}

const crackedJoints = ({ ref }: Part): Effect[] => [
  { kind: 'dead', ref },
  { kind: 'visible', ref, as: 'crack' },
];

const isConnector = ({ kind }: Part): boolean => kind === 'connector' || kind === 'batteryConnector';
