import { z } from 'zod';
import { handiestPlace, portPin } from '../../board';
import { WITHIN_SDS } from '../../math';
import { formatDrop } from '../../units';
import type { Value } from '../value';
import { UNPOWERED, defineMeasurement, type Interpretation, type Sound } from './definition';
import { dropOfNet } from './drop-prediction';
import { bad, good, plain } from './interpretation';
import { nameSchema, noShield, unknownNet } from './naming';
import { dropScale } from './scale';

const schema = z.object({ kind: z.literal('diodeDrop'), net: nameSchema });
export type DiodeDropMeasurement = Readonly<z.infer<typeof schema>>;

/** Diode mode at a net, at the port where it comes to one. */
export const diodeDrop = defineMeasurement<DiodeDropMeasurement>({
  kind: 'diodeDrop',
  schema,
  label: 'diode mode on the board',
  id: (m) => `drop:${m.net}`,
  // The contacts of the port are offered one by one.
  offered: () => [],
  misfit: (board, m) => unknownNet(board, m.net),
  title: (_board, m) => `${m.net} at the port, diode mode`,
  name: (_board, m) => `${m.net} drop`,
  place: (board, m, near) => portPin(board, m.net) ?? handiestPlace(board, m.net, near),
  access: () => 'closed',
  // Engineering estimate.
  minutes: () => 0.3,
  shield: noShield,
  power: () => UNPOWERED,
  meterReads: 'drop',
  // Engineering estimate.
  errorRate: 0.03,
  seesSwaps: false,
  outside: false,
  scale: dropScale,
  touches: (_board, m) => [m.net],
  predict: (model, m, fault, absent) =>
    dropOfNet(model, m.net, portPin(model.board, m.net)?.name.split('.')[1], fault, absent),
  partition: (partitioner, m) => partitioner.diodeDrop(m.net, 'drop'),
  interpret: ({ sound }, _m, value) => interpretDrop(sound(), value),
  goodBoards: { fromId: (net) => ({ kind: 'diodeDrop', net }), decide: true },
  stem: (_board, m) => `${m.net.toLowerCase()} drop `,
  // Typed as a point: see point-line.ts.
  commands: [],
});

/** Drops this close to normal count as normal, V; about three of the usual spreads. */
const NORMAL_DROP_V = 0.035;
/** From here on a normal drop is a range rather than a figure, V. */
const KNOWN_DROP_V = 0.05;
/** Below this a drop is a short; below the second the sign is wrong rather than the zero. Common practice. */
const DROP_SHORTED_V = 0.06;
const WRONG_SIGN_V = -0.05;

function interpretDrop({ mean: normalV, sd }: Sound, value: Value): Interpretation {
  if (value.kind === 'open') return bad('open: the way to the chip is cut, or its input is gone');
  if (value.kind !== 'figure') return plain();
  if (value.value < WRONG_SIGN_V) return bad('wrong sign: the chip behind is damaged, or the leads are swapped');
  if (value.value < DROP_SHORTED_V) return bad('shorted to ground');
  const reach = Math.max(NORMAL_DROP_V, WITHIN_SDS * sd);
  const isKnown = reach <= KNOWN_DROP_V;
  const expected = isKnown
    ? formatDrop(normalV)
    : `${formatDrop(Math.max(0, normalV - reach))} to ${formatDrop(normalV + reach)}`;
  if (Math.abs(value.value - normalV) <= reach)
    return isKnown ? good(`normal, ${expected} expected`) : plain(`within what is known, ${expected}`);
  return bad(`off, ${expected} expected: the chip behind it is suspect`);
}
