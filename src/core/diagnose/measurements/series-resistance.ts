import { z } from 'zod';
import { isTwoTerminal, partByRef, type Board, type Part } from '../../board';
import type { Value } from '../value';
import { UNPOWERED, defineMeasurement, type Interpretation, type Sound } from './definition';
import { logOhmOf, normalReach, openResistance, resistanceBetween } from './ground-resistance';
import { bad, good, plain } from './interpretation';
import { nameSchema, partPlace, shieldOverPart, unknownPart } from './naming';
import { resistanceScale } from './scale';

/** Lines of a filter, or the whole of a part with two ends. */
export const FILTER_LINES = ['a', 'b', 'ab'] as const;
const lineSchema = z.enum([...FILTER_LINES, '']);

const schema = z.object({ kind: z.literal('seriesResistance'), ref: nameSchema, line: lineSchema });
export type SeriesResistanceMeasurement = Readonly<z.infer<typeof schema>>;

/** Ohms through a part, or between its lines, the board unpowered. */
export const seriesResistance = defineMeasurement<SeriesResistanceMeasurement>({
  kind: 'seriesResistance',
  schema,
  label: 'resistance through a part',
  id: (m) => `through:${m.ref}:${m.line}`,
  offered: (board) => board.parts.flatMap(testsThrough),
  misfit: (board, m) => unknownPart(board, m.ref),
  title: (board, m) =>
    m.line === 'ab'
      ? `${m.ref}, line to line`
      : m.line
        ? `${m.ref}, through line ${m.line}`
        : isTwoTerminal(partByRef(board, m.ref)!)
          ? `Through ${m.ref}`
          : `Across ${m.ref}`,
  name: (_board, m) =>
    m.line === 'ab' ? `${m.ref} line to line` : m.line ? `${m.ref} line ${m.line}` : `Through ${m.ref}`,
  place: (board, m) => partPlace(board, m.ref),
  access: () => 'out',
  // Engineering estimate.
  minutes: () => 0.3,
  shield: (board, m) => shieldOverPart(board, m.ref),
  power: () => UNPOWERED,
  meterReads: 'Ω',
  // Engineering estimate.
  errorRate: 0.03,
  seesSwaps: false,
  outside: false,
  checklistRank: 11,
  scale: resistanceScale,
  touches: (board, m) => endsOf(board, m),
  predict(model, m, fault, absent) {
    const [a, b] = endsOf(model.board, m);
    return absent.has(m.ref) ? openResistance() : resistanceBetween(model, a, b, fault, absent);
  },
  partition: (partitioner, m) =>
    partitioner.absent.has(m.ref) ? partitioner.constant() : partitioner.resistance(...endsOf(partitioner.board, m)),
  interpret: ({ sound }, _m, value) => interpretThrough(sound(), value),
  stem: (_board, m) => (m.line ? `${m.ref.toLowerCase()} ${m.line} ` : `${m.ref.toLowerCase()} thru `),
  // Typed as a point: see point-line.ts.
  commands: [],
});

function testsThrough(part: Part): SeriesResistanceMeasurement[] {
  const { kind, ref } = part;
  if (kind === 'lineFilter') return FILTER_LINES.map((line) => ({ kind: 'seriesResistance', ref, line }));
  if (kind === 'fuse' || kind === 'coil' || kind === 'resistor' || kind === 'mosfet')
    return [{ kind: 'seriesResistance', ref, line: '' }];
  return [];
}

/** The two nets between which it is measured. */
function endsOf(board: Board, { ref, line }: SeriesResistanceMeasurement): [string, string] {
  const { pins, kind } = partByRef(board, ref)!;
  if (kind === 'mosfet') return [pins['2'], pins['3']];
  if (line === 'b') return [pins['3'], pins['4']];
  if (line === 'ab') return [pins['1'], pins['3']];
  return [pins['1'], pins['2']];
}

/** A part that conducts reads below the first of these, and passes below the second, log10 ohm. Common practice. */
const CONDUCTS_BELOW = Math.log10(2);
const PASSES_BELOW = Math.log10(3);
/** A beep is taken as about an ohm here. */
const BEEP_LOG = 0;

function interpretThrough({ mean: healthyLog, sd }: Sound, value: Value): Interpretation {
  const log = value.kind === 'beep' ? BEEP_LOG : logOhmOf(value);
  if (log === undefined) return plain();
  if (healthyLog < CONDUCTS_BELOW) return log < PASSES_BELOW ? good('it conducts') : bad('open: it should conduct');
  if (Math.abs(log - healthyLog) <= normalReach(sd)) return good('normal');
  return log < healthyLog ? bad('bridged: these should not be joined') : bad('open');
}
