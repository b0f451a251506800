import type { PartRef } from '../../identities';
import { z } from 'zod';
import { memoriesOf } from '../../board';
import { defineCommand, oneOf } from '../../command-line';
import { ok } from '../../result';
import type { Effect } from '../faults';
import { verdict } from '../prediction';
import { UNPOWERED, defineMeasurement, type MeasurementEntry, type MeasurementLineContext } from './definition';
import { bad, good } from './interpretation';
import { inSmallLetters, verdictOf } from './line-value';
import { nameSchema, partPlace, shieldOverPart, unknownPart } from './naming';
import { OBSERVATION } from './observation';
import { verdictScale } from './scale';

const schema = z.object({ kind: z.literal('imageCheck'), ref: nameSchema });
export type ImageCheckMeasurement = Readonly<z.infer<typeof schema>>;

/** Minutes to read a memory twice and check it, or to write it. Engineering estimate. */
export const IMAGE_MINUTES = 12;

const isBadImage = (ref: PartRef, e: Effect): boolean => e.kind === 'imageBad' && e.ref === ref;
const memories = memoriesOf;

/** The configuration memory is read and its checks are made. */
export const imageCheck = defineMeasurement<ImageCheckMeasurement>({
  kind: 'imageCheck',
  schema,
  label: 'image checks',
  id: (m) => `image:${m.ref}`,
  offered: (board) => memories(board).map((ref) => ({ kind: 'imageCheck', ref }) as const),
  misfit: (board, m) => unknownPart(board, m.ref),
  title: (_board, m) => `Read the image of ${m.ref} and check it`,
  name: (_board, m) => `${m.ref} image`,
  place: (board, m) => partPlace(board, m.ref),
  access: () => 'out',
  minutes: () => IMAGE_MINUTES,
  shield: (board, m) => shieldOverPart(board, m.ref),
  power: () => UNPOWERED,
  // Engineering estimate: two reads that agree leave little to slip.
  errorRate: 0.005,
  seesSwaps: false,
  outside: false,
  checklistRank: 12,
  scale: verdictScale('good', 'bad'),
  touches: () => [],
  predict(_model, m, fault) {
    const { corruptFails, soundFails } = OBSERVATION.imageCheck;
    return verdict(fault.effects.some((e) => isBadImage(m.ref, e)) ? corruptFails : soundFails);
  },
  partition: (partitioner, m) => partitioner.anyEffect((e) => isBadImage(m.ref, e)),
  interpret: (_context, _m, value) => (value.kind === 'pass' ? good('its checks hold') : bad('its checks fail')),
  stem: (_board, m) => `check ${m.ref.toLowerCase()} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'check',
      usage: [{ example: 'check u9 bad', help: 'the image of a memory: good or bad' }],
      parse({ board }, { args: [word, answer] }) {
        const ref = oneOf(memories(board), word, 'after "check"');
        if (!ref.ok) return ref;
        const value = verdictOf(answer);
        return value.ok ? ok({ measurement: { kind: 'imageCheck', ref: ref.value }, value: value.value }) : value;
      },
      complete: ({ board }, words) => (words.length === 2 ? inSmallLetters(memories(board)) : ['good', 'bad']),
    }),
  ],
});
