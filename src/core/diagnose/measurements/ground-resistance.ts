import type { NetName, PartRef } from '../../identities';
import { z } from 'zod';
import { groundNet, handiestPlace, shieldOver, type Board } from '../../board';
import { WITHIN_SDS } from '../../math';
import { formatOhm } from '../../units';
import type { CircuitModel } from '../circuit-model';
import type { Fault } from '../faults';
import { alternative, valuesOf, type Prediction } from '../prediction';
import type { Value } from '../value';
import { UNPOWERED, defineMeasurement, type Interpretation, type Sound } from './definition';
import { bad, good, plain } from './interpretation';
import { nameSchema, unknownNet } from './naming';
import { pointCommand } from './point-line';
import { LEADS_OHM, OPEN_LOG_OHM, lowEndSpread, resistanceScale, shownLogOhm } from './scale';

const schema = z.object({ kind: z.literal('groundResistance'), net: nameSchema });
export type GroundResistanceMeasurement = Readonly<z.infer<typeof schema>>;

/** Ohms from a net to ground, the board unpowered. */
export const groundResistance = defineMeasurement<GroundResistanceMeasurement>({
  kind: 'groundResistance',
  schema,
  label: 'resistance to ground',
  id: (m) => `ohm:${m.net}`,
  offered: (board) => probedNets(board).map((net) => ({ kind: 'groundResistance', net }) as const),
  misfit: (board, m) => unknownNet(board, m.net),
  title: (board, m, near) => `${handiestPlace(board, m.net, near)?.name ?? ''} to ground, resistance`,
  name: (_board, m) => `${m.net} to ground`,
  place: (board, m, near) => handiestPlace(board, m.net, near),
  access: () => 'out',
  // Engineering estimate.
  minutes: () => 0.3,
  shield(board, m) {
    const place = handiestPlace(board, m.net);
    return place && shieldOver(board, place);
  },
  power: () => UNPOWERED,
  meterReads: 'Ω',
  // Engineering estimate.
  errorRate: 0.03,
  seesSwaps: false,
  outside: false,
  checklistRank: 10,
  scale: resistanceScale,
  touches: (_board, m) => [m.net],
  predict: (model, m, fault, absent) => resistanceBetween(model, m.net, groundNet(model.board), fault, absent),
  partition: (partitioner, m) => partitioner.resistance(m.net, partitioner.ground),
  interpret: ({ model, sound }, m, value) => interpretOhm(model.board, m.net, sound(), value),
  goodBoards: { fromId: (net) => ({ kind: 'groundResistance', net }), decide: true },
  stem: (board, m, near) => `${(handiestPlace(board, m.net, near)?.name ?? '').toLowerCase()} ohm `,
  commands: [pointCommand],
});

/** Nets that a probe reaches: at a test point or a capacitor. */
function probedNets(board: Board): string[] {
  const ground = groundNet(board);
  const isProbed = (net: NetName): boolean =>
    board.points.some((p) => p.net === net) ||
    board.parts.some((p) => p.kind === 'capacitor' && Object.values(p.pins).includes(net));
  return Object.keys(board.nets).filter((net) => net !== ground && isProbed(net));
}

/** Spread of a shorted part's resistance: 0.5–5 Ω covers about 95 %, as log10. */
const SHORT_SPREAD = 0.25;
/** Spread of a leak, as log10: from tens of ohms to some kilohms. Engineering estimate. */
const LEAK_SPREAD = 0.4;
/** Spread of a sound network against its board file, as log10. Engineering estimate. */
const HEALTHY_SPREAD = 0.1;
/** A fault that moves a resistance by less leaves it as it was, log10; half a row's width. */
const MOVED_DECADES = 0.04;
/** Shorts spread wide only where they are low, ohm. */
const LOW_OHM = 100;

/** Ohms between two nets as a hand meter shows them. */
export function resistanceBetween(
  model: CircuitModel,
  a: string,
  b: string,
  fault: Fault,
  absent: ReadonlySet<PartRef>,
): Prediction {
  const network = model.networkWithout(absent);
  const healthy = network.resistanceOhm(a, b);
  const ohm = model.resistanceOhm(a, b, fault, absent);
  const isMoved = Math.abs(Math.log10((ohm + LEADS_OHM) / (healthy + LEADS_OHM))) > MOVED_DECADES;
  const leaks = fault.effects.some((e) => e.kind === 'shunt' && e.ohm > SHORT_BELOW_OHM);
  const own = !isMoved ? 0 : ohm < LOW_OHM ? SHORT_SPREAD : leaks ? LEAK_SPREAD : 0;
  const unknown = network.doubtDecades(a, b);
  // Beside a path of its own the loads that are not known carry less of the current; where a path is gone, fewer of them even out.
  const doubt = isMoved && ohm > healthy ? unknown.widest : unknown.whole * Math.min(1, ohm / healthy);
  const spread = Math.hypot(HEALTHY_SPREAD + lowEndSpread(ohm), own, doubt);
  return valuesOf(alternative(shownLogOhm(ohm), spread));
}

/** A path that is gone with its part. */
export const openResistance = (): Prediction => valuesOf(alternative(OPEN_LOG_OHM, HEALTHY_SPREAD));

/** A short, as a hand meter shows it, ohm. Common practice. */
export const SHORT_BELOW_OHM = 10;
/** Resistances within this share of the expected one count as normal; capacitors and chips vary that much, log10. Engineering estimate. */
export const NORMAL_DECADES = 0.5;

/** How far a sound reading may lie from its centre: as usual, or as far as loads that are not known let it, log10 ohm. */
export const normalReach = (sd: number): number => Math.max(NORMAL_DECADES, WITHIN_SDS * sd);

/** What a meter showed, as log10 ohm; undefined where it showed no figure. */
export const logOhmOf = (value: Value): number | undefined =>
  value.kind === 'open' ? OPEN_LOG_OHM : value.kind === 'figure' ? shownLogOhm(value.value) : undefined;

/** @param sound what a sound board reads, log10 ohm. */
export function interpretOhm(
  board: Board,
  net: NetName,
  { mean: healthyLog, sd }: Sound,
  value: Value,
): Interpretation {
  const reach = normalReach(sd);
  const isKnown = reach <= NORMAL_DECADES;
  const figure = (log: number): string => (log >= OPEN_LOG_OHM ? 'open' : formatOhm(10 ** log));
  const normal = isKnown ? figure(healthyLog) : `${figure(healthyLog - reach)} to ${figure(healthyLog + reach)}`;
  const { lowByNature } = board.nets[net];
  if (value.kind === 'beep') return lowByNature ? plain() : bad(`a short or close to it, ${normal} expected`);
  const log = logOhmOf(value);
  if (log === undefined) return plain();
  if (Math.abs(log - healthyLog) <= reach && !isKnown) return plain(`within what is known, ${normal}`);
  if (Math.abs(log - healthyLog) <= NORMAL_DECADES)
    return good(lowByNature ? 'low by nature here, normal' : `normal, ${normal} expected`);
  if (log < healthyLog)
    return bad(10 ** log < SHORT_BELOW_OHM ? `a short, ${normal} expected` : `low, ${normal} expected`);
  return bad(`too high, ${normal} expected: a load or a path is missing`);
}
