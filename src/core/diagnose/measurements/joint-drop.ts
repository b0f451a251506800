import { z } from 'zod';
import { findPlace, partByRef, partNamed, pinNamed, type Board } from '../../board';
import { defineCommand } from '../../command-line';
import { judgeJoint } from '../../port';
import { fail, ok } from '../../result';
import {
  UNPOWERED,
  defineMeasurement,
  type MeasurementEntry,
  type MeasurementLineContext,
  type ProposalContext,
} from './definition';
import { dropAtPin } from './drop-prediction';
import { plain } from './interpretation';
import { parseDrop, partNames, pinNames } from './line-value';
import { nameSchema, netAt, noShield, unknownPart } from './naming';
import { dropScale } from './scale';

const schema = z.object({
  kind: z.literal('jointDrop'),
  ref: nameSchema,
  pin: z.string().regex(/^[A-Z0-9]{1,6}$/),
});
export type JointDropMeasurement = Readonly<z.infer<typeof schema>>;

/** Diode mode at one joint of a placed part. It stands on the board: what is open at a port's contacts does not reach it. */
export const jointDrop = defineMeasurement<JointDropMeasurement>({
  kind: 'jointDrop',
  schema,
  label: 'diode mode at a joint',
  id: (m) => `joint:${m.ref}:${m.pin}`,
  // The walk along a placed part asks for them all; the search for a fault for those that it suspects.
  offered: () => [],
  proposed: doubtfulJoints,
  misfit: (board, m) => unknownPart(board, m.ref) ?? unconnected(board, m),
  title: (board, m) => `${m.ref} joint ${m.pin}, ${netAt(board, m.ref, m.pin)}, diode mode`,
  name: (board, m) => `${m.ref} joint ${m.pin} ${netAt(board, m.ref, m.pin)}`,
  place: (board, m) => findPlace(board, `${m.ref}.${m.pin}`),
  access: () => 'out',
  // Engineering estimate: the probe goes from joint to joint.
  minutes: () => 0.15,
  shield: noShield,
  power: () => UNPOWERED,
  meterReads: 'drop',
  // Engineering estimate.
  errorRate: 0.03,
  seesSwaps: false,
  outside: false,
  scale: dropScale,
  touches: (board, m) => [netAt(board, m.ref, m.pin)],
  predict: (model, m, fault, absent) => dropAtPin(model, m.ref, m.pin, null, fault, absent),
  partition(partitioner, m) {
    const net = partByRef(partitioner.board, m.ref)!.pins[m.pin];
    return net === undefined || net === partitioner.ground
      ? partitioner.constant()
      : partitioner.diodeDrop(net, 'joint', m);
  },
  interpret({ model, goodBoards }, m, value) {
    const net = partByRef(model.board, m.ref)?.pins[m.pin];
    if (net === undefined || (value.kind !== 'figure' && value.kind !== 'open')) return plain();
    const { label, state } = judgeJoint(model.board, net, value, { stats: goodBoards });
    return { message: label, state };
  },
  goodBoards: { fromId: (ref, pin) => ({ kind: 'jointDrop', ref, pin }), decide: false },
  stem: (_board, m) => `joint ${m.ref.toLowerCase()} ${m.pin.toLowerCase()} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'joint',
      usage: [
        {
          example: 'joint u4 12 0.41',
          help: 'diode mode at one joint of a placed part, ol where open; in its walk the value alone',
        },
      ],
      parse({ board }, { args: [word = '', pin = '', ...figures] }) {
        const part = partNamed(board, word);
        if (!part) return fail(`Expected a part of this board after "joint"; got "${word}".`);
        const joint = pinNamed(part, pin);
        if (joint === undefined)
          return fail(
            `Expected a joint of ${part.ref} that is connected, such as ${Object.keys(part.pins)[0]}; got "${pin}".`,
          );
        const value = parseDrop(figures, `joint ${joint} of ${part.ref}`);
        if (!value.ok) return value;
        return ok({ measurement: { kind: 'jointDrop', ref: part.ref, pin: joint }, value: value.value });
      },
      complete({ board }, words) {
        if (words.length === 2) return partNames(board);
        return words.length === 3 ? pinNames(board, words[1]) : ['ol'];
      },
    }),
  ],
});

const unconnected = (board: Board, { ref, pin }: JointDropMeasurement): string | undefined =>
  partByRef(board, ref)!.pins[pin] === undefined
    ? `Expected a joint of ${ref} that is connected; got "${pin}".`
    : undefined;

/** Worth the probe from this share of the belief on. Engineering estimate. */
const FROM = 0.002;
const MOST_JOINTS = 4;

function doubtfulJoints({ likely, absent }: ProposalContext): JointDropMeasurement[] {
  const found = new Map<string, JointDropMeasurement>();
  for (const { fault, p } of likely) {
    if (p < FROM || found.size >= MOST_JOINTS) break;
    for (const e of fault.effects)
      if (e.kind === 'jointOpen' && !absent.has(e.ref))
        found.set(`${e.ref} ${e.pin}`, { kind: 'jointDrop', ref: e.ref, pin: e.pin });
  }
  return [...found.values()];
}
