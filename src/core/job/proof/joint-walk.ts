import type { PartRef } from '../../identities';
import { partByRef, type Board } from '../../board';
import { measurementId } from '../../diagnose';
import { expectedDrop, jointsOf, judgeJoint, type Joint, type PinValue, type PinVerdict } from '../../port';
import type { ReferenceTable } from '../../reference';
import { formatDrop } from '../../units';
import type { JobFields } from '../log';
import { judgeSeat } from './site-verdicts';

/** One joint in the walk, with what it reads where it was touched. */
export interface WalkJoint extends Joint {
  /** What a good board reads there, in words. */
  readonly expected: string;
  readonly value?: PinValue;
  readonly verdict?: PinVerdict;
}

/** The walk along the joints of one placed part, as far as it has come. */
export interface JointWalk {
  readonly ref: PartRef;
  readonly joints: readonly WalkJoint[];
  /** The joint to touch next; none when all are read. */
  readonly next?: WalkJoint;
  readonly readCount: number;
  readonly bad: readonly WalkJoint[];
  readonly flat?: { readonly summary: string; readonly holds: boolean };
}

/** The walks of all parts that were soldered on during the job, in the order in which they were placed. */
export function walkJoints(board: Board, state: JobFields, references: ReferenceTable = {}): JointWalk[] {
  return Object.entries(state.placed)
    .sort(([, a], [, b]) => a - b)
    .flatMap(([ref, placedAt]) => (partByRef(board, ref) ? [walkPart(board, state, references, ref, placedAt)] : []));
}

function walkPart(
  board: Board,
  state: JobFields,
  references: ReferenceTable,
  ref: PartRef,
  placedAt: number,
): JointWalk {
  const part = partByRef(board, ref)!;
  const values = new Map<string, PinValue>();
  let last: string | undefined;
  for (const { measurement: m, value, work } of state.readings) {
    if (m.kind !== 'jointDrop' || m.ref !== ref || work < placedAt) continue;
    if (value.kind !== 'figure' && value.kind !== 'open') continue;
    values.set(m.pin, value);
    last = m.pin;
  }
  const touched = jointsOf(board, part);
  const joints = touched.map((joint): WalkJoint => {
    const stats = references[measurementId({ kind: 'jointDrop', ref, pin: joint.pin })];
    const expected = expectedDrop(board, joint, stats);
    const value = values.get(joint.pin);
    const around = {
      stats,
      beside: joint.beside.map((pin) => ({ pin, net: part.pins[pin], value: values.get(pin) })),
      sameNet: touched
        .filter((other) => other.net === joint.net && other.pin !== joint.pin)
        .flatMap((other) => values.get(other.pin) ?? []),
    };
    return {
      ...joint,
      expected: expected ? `${expected.low.toFixed(3)} to ${formatDrop(expected.high)}` : expectedGround(board, joint),
      ...(value && { value, verdict: judgeJoint(board, joint.net, value, around) }),
    };
  });
  const after = last === undefined ? 0 : joints.findIndex((j) => j.pin === last) + 1;
  const seat = state.flatness[ref];
  return {
    ref,
    joints,
    next: [...joints.slice(after), ...joints.slice(0, after)].find((j) => j.value === undefined),
    readCount: values.size,
    bad: joints.filter((j) => j.verdict?.state === 'bad'),
    flat: seat && judgeSeat(board, seat),
  };
}

const expectedGround = (board: Board, { net }: Joint): string =>
  board.nets[net].role === 'ground' ? 'next to nothing' : 'neither short nor open';

/** What is typed before the value of a joint: `joint u4 12 `. */
export const jointStem = (ref: PartRef, pin: string): string => `joint ${ref.toLowerCase()} ${pin.toLowerCase()} `;

/** What is missing of the walks that were begun; none begun says nothing. */
export function seatMissing(walks: readonly JointWalk[]): string[] | undefined {
  const begun = walks.filter((w) => w.readCount > 0 || w.flat);
  if (begun.length === 0) return undefined;
  return begun.flatMap(({ ref, joints, readCount, bad, flat }) => [
    ...bad.map((j) => `${ref} joint ${j.pin} ${j.verdict!.label.split(':')[0]}`),
    ...(flat && !flat.holds ? [`${ref}: ${flat.summary}`] : []),
    ...(readCount > 0 && readCount < joints.length ? [`${ref}: ${readCount} of ${joints.length} joints`] : []),
  ]);
}
