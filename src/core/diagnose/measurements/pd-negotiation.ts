import type { PartRef } from '../../identities';
import { z } from 'zod';
import { findPlace, type PlugSide } from '../../board';
import { defineCommand, oneOf } from '../../command-line';
import { ok } from '../../result';
import { PD_OUTCOMES, type PdOutcome } from '../../usb';
import type { CircuitModel } from '../circuit-model';
import type { Fault } from '../faults';
import { choiceChances } from '../prediction';
import { netsAtPort } from '../islands';
import { defineMeasurement, type MeasurementEntry, type MeasurementLineContext } from './definition';
import { bad, good, plain } from './interpretation';
import { severalPorts, takePort, takeSide } from './line-value';
import { nameSchema, noShield, plugSideSchema, portPrefix, portStem, unknownPort } from './naming';
import { meterPattern } from './meter-pattern';
import { OBSERVATION } from './observation';
import { choiceScale } from './scale';

/** Where a conversation stopped, in a few words. */
export const PD_OUTCOME_LABELS: Readonly<Record<PdOutcome, string>> = {
  silent: 'nobody talks',
  offersUnanswered: 'offers unanswered',
  offersNotAsked: 'nothing asked for',
  refused: 'request refused',
  notReady: 'accepted, no supply',
  contract: 'a contract that holds',
  collapsed: 'a contract that collapses',
  noisy: 'a noisy line',
};

/** What is typed for each. */
const TYPED: Readonly<Record<string, PdOutcome>> = {
  silent: 'silent',
  unanswered: 'offersUnanswered',
  unasked: 'offersNotAsked',
  refused: 'refused',
  unready: 'notReady',
  contract: 'contract',
  collapsed: 'collapsed',
  noisy: 'noisy',
};

const schema = z.object({ kind: z.literal('pdNegotiation'), port: nameSchema, side: plugSideSchema });
export type PdNegotiationMeasurement = Readonly<z.infer<typeof schema>>;

/** A capture of the CC lines: where does the power negotiation stop? */
export const pdNegotiation = defineMeasurement<PdNegotiationMeasurement>({
  kind: 'pdNegotiation',
  schema,
  label: 'capture of the CC lines',
  id: (m) => `talk:${m.port}:${m.side}`,
  offered: (board) =>
    board.ports.flatMap((port) =>
      port.sides.map(({ side }) => ({ kind: 'pdNegotiation', port: port.id, side }) as const),
    ),
  misfit: (board, m) => unknownPort(board, m.port),
  title: (board, m) => `Capture the CC lines, ${portPrefix(board, m.port)}${m.side} way`,
  name: (board, m) => `${board.ports.length > 1 ? `${m.port} c` : 'C'}onversation, ${m.side} way`,
  place: (board, m) => findPlace(board, m.port),
  access: () => 'closed',
  // Engineering estimate.
  minutes: () => 6,
  shield: noShield,
  power: (m) => ({ kind: 'port', port: m.port }),
  // Engineering estimate.
  errorRate: 0.03,
  seesSwaps: true,
  outside: true,
  checklistRank: 4,
  scale: choiceScale(PD_OUTCOME_LABELS),
  touches: (board, m) => netsAtPort(board, m.port),
  choices: () => PD_OUTCOMES,
  predict: (model, m, fault, absent) => ({
    kind: 'choice',
    chance: choiceChances(PD_OUTCOMES, outcomeShares(model, m.port, m.side, fault, absent)),
  }),
  partition: (partitioner, m) => meterPattern.partition(partitioner, { ...m, kind: 'meterPattern' }),
  interpret(_context, _m, value) {
    if (value.kind !== 'choice') return plain();
    return value.choice === 'contract' ? good('') : bad('');
  },
  stem: (board, m) => `talk ${portStem(board, m.port)}${m.side.toLowerCase()} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'talk',
      usage: [
        {
          example: 'talk a unanswered',
          help: `where the conversation stopped: ${Object.keys(TYPED).join(', ')}`,
        },
      ],
      parse({ board }, { args }) {
        const taken = takePort(board, args, 'talk');
        if (!taken.ok) return taken;
        const { port, rest } = taken.value;
        const side = takeSide(rest[0]);
        if (!side.ok) return side;
        const word = oneOf(Object.keys(TYPED), rest[1], 'for where it stopped');
        if (!word.ok) return word;
        return ok({
          measurement: { kind: 'pdNegotiation', port, side: side.value },
          value: { kind: 'choice', choice: TYPED[word.value] },
        });
      },
      complete: ({ board }, words) =>
        words.slice(0, -1).some((w) => w === 'a' || w === 'b')
          ? Object.keys(TYPED)
          : [...severalPorts(board), 'a', 'b'],
    }),
  ],
});

/** What the controller, its supply, its image and the line allow. */
function outcomeShares(
  model: CircuitModel,
  port: string,
  side: PlugSide,
  fault: Fault,
  absent: ReadonlySet<PartRef>,
): Readonly<Partial<Record<PdOutcome, number>>> {
  const by = OBSERVATION.pdNegotiation;
  if (fault.effects.some((e) => e.kind === 'outside' && e.what === 'cable')) return by.badCable;
  if (fault.effects.some((e) => e.kind === 'outside' && e.what === 'charger')) return by.badCharger;
  const meter = model.meterCase(port, side, fault, absent);
  if (meter !== 'nothing' && model.isDirtyAt(port, side, fault)) return by.dirtyContact;
  switch (meter) {
    case 'nothing':
      return by.unpowered;
    case 'noTalk':
    case 'noTalkUnfed':
    case 'supplyShorted':
      return fault.effects.some((e) => e.kind === 'imageBad') ? by.badImage : by.deadController;
    case 'contractCollapses':
      return by.collapsing;
    case 'healthy':
    case 'noCharge':
    case 'preCharge':
    case 'earlyLoad':
    case 'systemShorted':
      return by.sound;
  }
}
