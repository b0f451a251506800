import type { PartRef } from '../../identities';
import { z } from 'zod';
import { partNamed } from '../../board';
import { defineCommand } from '../../command-line';
import { fail, ok } from '../../result';
import type { Effect } from '../faults';
import { verdict } from '../prediction';
import {
  UNPOWERED,
  defineMeasurement,
  type MeasurementEntry,
  type MeasurementLineContext,
  type ProposalContext,
} from './definition';
import { bad, good } from './interpretation';
import { partNames, verdictOf } from './line-value';
import { nameSchema, partPlace, shieldOverPart, unknownPart } from './naming';
import { OBSERVATION } from './observation';
import { verdictScale } from './scale';

const schema = z.object({ kind: z.literal('jointLook'), ref: nameSchema });
export type JointLookMeasurement = Readonly<z.infer<typeof schema>>;

/** A placed part under magnification, from every side: joints, bridges, its mark, the small parts beside it. */
export const jointLook = defineMeasurement<JointLookMeasurement>({
  kind: 'jointLook',
  schema,
  label: 'joints of a part by eye',
  id: (m) => `joints:${m.ref}`,
  offered: () => [],
  proposed: doubtfulParts,
  misfit: (board, m) => unknownPart(board, m.ref),
  title: (_board, m) => `Look at ${m.ref} with magnification: joints, bridges, its mark, its neighbours`,
  name: (_board, m) => `${m.ref} joints by eye`,
  place: (board, m) => partPlace(board, m.ref),
  access: () => 'out',
  // Engineering estimate.
  minutes: () => 1.5,
  shield: (board, m) => shieldOverPart(board, m.ref),
  power: () => UNPOWERED,
  // Engineering estimate.
  errorRate: 0.03,
  seesSwaps: false,
  outside: false,
  meetsAlways: true,
  scale: verdictScale('good', 'doubtful'),
  touches: () => [],
  predict: (_model, m, fault) =>
    verdict(
      fault.effects.reduce<number>((most, e) => Math.max(most, seenOf(m.ref, e)), OBSERVATION.jointLook.falseAlarm),
    ),
  partition: (partitioner, m) =>
    partitioner.namedEffects((e) => (e.kind === 'visible' && seenOf(m.ref, e) > 0 ? e.as : undefined)),
  interpret: (_context, m, value) =>
    value.kind === 'pass' ? good('sound to the eye') : bad(`touch up ${m.ref} before it gets power`),
  stem: (_board, m) => `joints ${m.ref.toLowerCase()} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'joints',
      usage: [{ example: 'joints u4 good', help: 'the joints of a placed part by eye: good, bad' }],
      parse({ board }, { args: [word = '', answer] }) {
        const part = partNamed(board, word);
        if (!part) return fail(`Expected a part of this board after "joints"; got "${word}".`);
        const value = verdictOf(answer);
        return value.ok ? ok({ measurement: { kind: 'jointLook', ref: part.ref }, value: value.value }) : value;
      },
      complete: ({ board }, words) => (words.length === 2 ? partNames(board) : ['good', 'bad']),
    }),
  ],
});

const seenOf = (ref: PartRef, e: Effect): number =>
  e.kind === 'visible' && e.ref === ref ? OBSERVATION.jointLook[e.as] : 0;

/** Worth a look from this share of the belief on. Engineering estimate. */
const FROM = 0.01;
const MOST_PARTS = 3;

function doubtfulParts({ likely, absent }: ProposalContext): JointLookMeasurement[] {
  const shares = new Map<string, number>();
  for (const { fault, p } of likely)
    for (const e of fault.effects)
      if (e.kind === 'visible' && !absent.has(e.ref)) shares.set(e.ref, (shares.get(e.ref) ?? 0) + p);
  return [...shares]
    .filter(([, p]) => p >= FROM)
    .sort((a, b) => b[1] - a[1])
    .slice(0, MOST_PARTS)
    .map(([ref]) => ({ kind: 'jointLook', ref }));
}
