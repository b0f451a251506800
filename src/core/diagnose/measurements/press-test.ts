import type { PartRef } from '../../identities';
import { z } from 'zod';
import { partByRef, partNamed, type Board } from '../../board';
import { defineCommand, oneOf } from '../../command-line';
import { fail, ok } from '../../result';
import type { Effect } from '../faults';
import { verdict } from '../prediction';
import {
  defineMeasurement,
  type MeasurementEntry,
  type MeasurementLineContext,
  type ProposalContext,
} from './definition';
import { plain } from './interpretation';
import { partNames } from './line-value';
import { nameSchema, partPlace, unknownPart } from './naming';
import { OBSERVATION } from './observation';
import { verdictScale } from './scale';

const schema = z.object({ kind: z.literal('pressTest'), ref: nameSchema });
export type PressTestMeasurement = Readonly<z.infer<typeof schema>>;

const isConnector = (board: Board, ref: PartRef): boolean => partByRef(board, ref)?.kind === 'connector';

/**
 * A finger or a stick on a part while it has power, or the plug moved in its port: does anything come or go? Cracked joints
 * under large parts answer to it (common practice, no published source).
 */
export const pressTest = defineMeasurement<PressTestMeasurement>({
  kind: 'pressTest',
  schema,
  label: 'pressing on a part, moving the plug',
  id: (m) => `press:${m.ref}`,
  offered: () => [],
  proposed: partsThatMayMove,
  misfit: (board, m) => unknownPart(board, m.ref),
  title: (board, m) =>
    isConnector(board, m.ref)
      ? `Move the plug in ${m.ref} gently: does anything change?`
      : `Press on ${m.ref} while it has power: does anything change?`,
  name: (board, m) => (isConnector(board, m.ref) ? `${m.ref}, plug moved` : `${m.ref} pressed`),
  place: (board, m) => partPlace(board, m.ref),
  // A port is reached from outside; everything else needs the board in the open.
  access: () => 'open',
  // Engineering estimate.
  minutes: () => 0.7,
  shield: () => undefined,
  power: () => ({ kind: 'anyPort' }),
  caution:
    'Board at rest on its supports, nothing but plastic or wood on a part, no finger near a coil or a hot chip; a cure that holds only under the finger is none.',
  // Engineering estimate: boards bend, and other contacts answer.
  errorRate: 0.05,
  seesSwaps: false,
  outside: false,
  meetsAlways: true,
  scale: verdictScale('no change', 'it changes'),
  touches: () => [],
  predict(_model, m, fault) {
    const by = OBSERVATION.pressTest;
    return verdict(fault.effects.reduce<number>((most, e) => Math.max(most, answers(m.ref, e)), by.still));
  },
  partition: (partitioner, m) => partitioner.namedEffects((e) => (answers(m.ref, e) > 0 ? nameOf(e) : undefined)),
  interpret: (_context, m, value) =>
    plain(value.kind === 'fail' ? `a contact at ${m.ref} is loose` : 'nothing there answers'),
  stem: (_board, m) => `press ${m.ref.toLowerCase()} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'press',
      usage: [{ example: 'press u4 changes', help: 'a part pressed, or the plug moved in a port: changes, or still' }],
      parse({ board }, { args: [word = '', answer] }) {
        const part = partNamed(board, word);
        if (!part) return fail(`Expected a part of this board after "press"; got "${word}".`);
        const seen = oneOf(['changes', 'still', 'fail', 'pass'], answer, `after ${part.ref}`);
        if (!seen.ok) return seen;
        return ok({
          measurement: { kind: 'pressTest', ref: part.ref },
          value: { kind: seen.value === 'changes' || seen.value === 'fail' ? 'fail' : 'pass' },
        });
      },
      complete: ({ board }, words) => (words.length === 2 ? partNames(board) : ['changes', 'still']),
    }),
  ],
});

/** Chance that a fault answers to the finger; 0 where it is none of this part's contacts. */
function answers(ref: PartRef, e: Effect): number {
  const by = OBSERVATION.pressTest;
  if (e.kind === 'dirty') return e.ref === ref ? by.dirty : 0;
  if (e.kind !== 'visible' || e.ref !== ref) return 0;
  return e.as === 'crack' ? by.crack : e.as === 'open' ? by.open : 0;
}

const nameOf = (e: Effect): string => (e.kind === 'visible' ? e.as : e.kind);

/** Worth a finger from this share of the belief on. Engineering estimate. */
const FROM = 0.01;
const MOST_PARTS = 3;

function partsThatMayMove({ likely, absent }: ProposalContext): PressTestMeasurement[] {
  const shares = new Map<string, number>();
  for (const { fault, p } of likely)
    for (const e of fault.effects)
      if ('ref' in e && !absent.has(e.ref) && answers(e.ref, e) > 0) shares.set(e.ref, (shares.get(e.ref) ?? 0) + p);
  return [...shares]
    .filter(([, p]) => p >= FROM)
    .sort((a, b) => b[1] - a[1])
    .slice(0, MOST_PARTS)
    .map(([ref]) => ({ kind: 'pressTest', ref }));
}
