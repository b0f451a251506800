import type { PartRef } from '../../identities';
import { z } from 'zod';
import { findPlace, type PlugSide } from '../../board';
import type { CircuitModel } from '../circuit-model';
import type { Fault } from '../faults';
import { netsAtPort } from '../islands';
import { defineMeasurement } from './definition';
import { bad, good, plain } from './interpretation';
import { nameSchema, noShield, plugSideSchema, portPrefix, portStem, unknownPort } from './naming';
import { OBSERVATION } from './observation';
import { ALL_BITS, CONTACT, portFlags, suppliesOf } from './port-flags';
import { choiceScale } from './scale';

/** How the meter behaves over a minute or more, where single figures do not tell. */
export const METER_PATTERNS = ['steady', 'swing', 'restart', 'early'] as const;
export type MeterPattern = (typeof METER_PATTERNS)[number];

export const METER_PATTERN_LABELS: Readonly<Record<MeterPattern, string>> = {
  steady: 'steady',
  swing: 'swings',
  restart: 'restarts again and again',
  early: 'half an ampere at once',
};

/** What is typed for each. */
export const METER_PATTERN_WORDS: Readonly<Record<string, MeterPattern>> = {
  steady: 'steady',
  swing: 'swing',
  swings: 'swing',
  restart: 'restart',
  restarts: 'restart',
  early: 'early',
};

const schema = z.object({ kind: z.literal('meterPattern'), port: nameSchema, side: plugSideSchema });
export type MeterPatternMeasurement = Readonly<z.infer<typeof schema>>;

/** The meter in line is watched for a minute: does what it shows come and go? */
export const meterPattern = defineMeasurement<MeterPatternMeasurement>({
  kind: 'meterPattern',
  schema,
  label: 'USB meter, watched',
  id: (m) => `shape:${m.port}:${m.side}`,
  offered: (board) =>
    board.ports.flatMap((port) =>
      port.sides.map(({ side }) => ({ kind: 'meterPattern', port: port.id, side }) as const),
    ),
  misfit: (board, m) => unknownPort(board, m.port),
  title: (board, m) => `Watch the meter for a minute, ${portPrefix(board, m.port)}${m.side} way`,
  name: (board, m) => `${board.ports.length > 1 ? m.port : 'Port'} watched, ${m.side} way`,
  place: (board, m) => findPlace(board, m.port),
  access: () => 'closed',
  // Engineering estimate.
  minutes: () => 1.5,
  shield: noShield,
  power: (m) => ({ kind: 'port', port: m.port }),
  // Engineering estimate.
  errorRate: 0.03,
  seesSwaps: true,
  outside: true,
  checklistRank: 3,
  scale: choiceScale(METER_PATTERN_LABELS),
  touches: (board, m) => netsAtPort(board, m.port),
  choices: () => METER_PATTERNS,
  predict: (model, m, fault, absent) => ({
    kind: 'choice',
    chance: patternChances(model, m.port, m.side, fault, absent),
  }),
  partition(partitioner, m) {
    const { port, meterOf, ...keys } = partitioner.atPort(m.port, m.side);
    const cc = port.sides.find((s) => s.side === m.side)!.ccNet;
    const flags = keys.effects.map((list) => portFlags(partitioner.board, list, cc));
    return {
      ...keys,
      // A capture of the CC lines asks for the same rows.
      sharedRows: `watched ${port.id} ${m.side}`,
      rowName: (a, b) =>
        (meterOf(a, b) * 9 + suppliesOf(flags[a], flags[b])) * ALL_BITS + ((flags[a].bits | flags[b].bits) & ~CONTACT),
    };
  },
  interpret(_context, _m, value) {
    if (value.kind !== 'choice') return plain();
    switch (value.choice as MeterPattern) {
      case 'steady':
        return good('nothing comes and goes');
      case 'swing':
        return bad('the boost cannot settle: often a bad configuration image');
      case 'restart':
        return bad('something the system requires is not connected');
      case 'early':
        return bad('the processor’s side, not the port');
    }
  },
  stem: (board, m) => `usb ${portStem(board, m.port)}${m.side.toLowerCase()} `,
  commands: [],
});

function patternChances(
  model: CircuitModel,
  port: string,
  side: PlugSide,
  fault: Fault,
  absent: ReadonlySet<PartRef>,
): Readonly<Record<MeterPattern, number>> {
  const by = OBSERVATION.meterPattern;
  const meter = model.meterCase(port, side, fault, absent);
  const lacks = (ref: PartRef): boolean =>
    absent.has(ref) || fault.effects.some((e) => (e.kind === 'dead' || e.kind === 'open') && e.ref === ref);
  if (fault.effects.some((e) => e.kind === 'load')) return by.earlyLoad;
  if (fault.effects.some((e) => e.kind === 'imageBad')) return by.badImage;
  if (meter === 'contractCollapses') return by.collapsing;
  const running = meter === 'healthy' || meter === 'noCharge' || meter === 'preCharge';
  const missing = model.board.parts.some((p) => p.required && lacks(p.ref));
  return running && missing ? by.restarting : by.steady;
}
