import type { PartRef } from '../../identities';
import { z } from 'zod';
import { defineCommand, oneOf } from '../../command-line';
import { fail, ok } from '../../result';
import { verdict } from '../prediction';
import type { Effect } from '../faults';
import { LOOK_FINDINGS, type LookFinding } from '../value';
import { UNPOWERED, defineMeasurement, type MeasurementEntry, type MeasurementLineContext } from './definition';
import { bad, good } from './interpretation';
import { portNames, verdictOf } from './line-value';
import { nameSchema, noShield, partPlace, unknownPart } from './naming';
import { OBSERVATION } from './observation';
import { verdictScale } from './scale';

const schema = z.object({ kind: z.literal('visualInspection'), ref: nameSchema });
export type VisualInspectionMeasurement = Readonly<z.infer<typeof schema>>;

const showsToTheEye = (ref: PartRef, e: Effect): boolean =>
  (e.kind === 'pinOpen' || e.kind === 'dirty') && e.ref === ref;

/** A look into the port with magnification, before any power. */
export const visualInspection = defineMeasurement<VisualInspectionMeasurement>({
  kind: 'visualInspection',
  schema,
  label: 'look into the port',
  id: (m) => `look:${m.ref}`,
  offered: (board) => board.ports.map((port) => ({ kind: 'visualInspection', ref: port.id }) as const),
  misfit: (board, m) => unknownPart(board, m.ref),
  title: (_board, m) => `Look into port ${m.ref} with magnification`,
  name: (_board, m) => `${m.ref} by eye`,
  place: (board, m) => partPlace(board, m.ref),
  access: () => 'closed',
  // Engineering estimate.
  minutes: () => 1,
  shield: noShield,
  power: () => UNPOWERED,
  // Engineering estimate.
  errorRate: 0.02,
  seesSwaps: false,
  outside: true,
  checklistRank: 1,
  scale: verdictScale('good', 'damaged'),
  touches: () => [],
  predict(_model, m, fault) {
    const { damageSeen, falseAlarm } = OBSERVATION.visualInspection;
    return verdict(fault.effects.some((e) => showsToTheEye(m.ref, e)) ? damageSeen : falseAlarm);
  },
  partition: (partitioner, m) => partitioner.anyEffect((e) => showsToTheEye(m.ref, e)),
  interpret: (_context, _m, value) =>
    value.kind === 'pass' ? good('sound to the eye') : bad('do not power it before it is cleaned or replaced'),
  stem: (_board, m) => `look ${m.ref.toLowerCase()} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'look',
      usage: [
        { example: 'look j1 good', help: 'the port by eye' },
        { example: 'look j1 bad pins corrosion', help: `what was seen: ${LOOK_FINDINGS.join(', ')}` },
      ],
      parse({ board }, { args: [name, word, ...seen] }) {
        const ref = oneOf(
          board.ports.map((p) => p.id),
          name,
        );
        if (!ref.ok) return ref;
        const value = verdictOf(word);
        if (!value.ok) return value;
        const odd = seen.find((w) => !(LOOK_FINDINGS as readonly string[]).includes(w));
        if (odd !== undefined) return fail(`Expected what was seen: ${LOOK_FINDINGS.join(', ')}; got "${odd}".`);
        const measurement = { kind: 'visualInspection', ref: ref.value } as const;
        if (value.value.kind === 'pass')
          return seen.length === 0
            ? ok({ measurement, value: value.value })
            : fail(`Expected "good" alone; got "${seen.join(' ')}" after it.`);
        return ok({ measurement, value: { kind: 'fail', seen: [...new Set(seen as LookFinding[])] } });
      },
      complete({ board }, words) {
        if (words.length === 2) return portNames(board);
        return words.length === 3 ? ['good', 'bad'] : LOOK_FINDINGS;
      },
    }),
  ],
});
