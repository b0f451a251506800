import { z } from 'zod';
import { groundNet } from '../../board';
import { partWork } from '../faults';
import { UNPOWERED, defineMeasurement, type ProposalContext } from './definition';
import { groundResistance, interpretOhm, resistanceBetween } from './ground-resistance';
import { nameSchema, partPlace, shieldOverPart, unknownNet, unknownPart } from './naming';
import { resistanceScale } from './scale';

const schema = z.object({ kind: z.literal('liftedResistance'), ref: nameSchema, net: nameSchema });
export type LiftedResistanceMeasurement = Readonly<z.infer<typeof schema>>;

/** A part comes off, and the resistance of a net is taken again: is the short gone with it? */
export const liftedResistance = defineMeasurement<LiftedResistanceMeasurement>({
  kind: 'liftedResistance',
  schema,
  label: 'resistance with a part off',
  id: (m) => `lift:${m.ref}:${m.net}`,
  offered: () => [],
  proposed: likelyShorts,
  misfit: (board, m) => unknownPart(board, m.ref) ?? unknownNet(board, m.net),
  title: (_board, m) => `Take ${m.ref} off, then ${m.net} to ground`,
  name: (_board, m) => `${m.net}, ${m.ref} off`,
  place: (board, m) => partPlace(board, m.ref),
  access: () => 'out',
  minutes: (board, m) => partWork(board, m.ref).minutes + groundResistance.minutes(board, asResistance(m)),
  shield: (board, m) => shieldOverPart(board, m.ref),
  power: () => UNPOWERED,
  meterReads: 'Ω',
  // Engineering estimate, as of every resistance.
  errorRate: groundResistance.errorRate,
  seesSwaps: false,
  outside: false,
  scale: resistanceScale,
  touches: (_board, m) => [m.net],
  // Both are asked as the resistance on the board without the part.
  actsAs: (m) => ({ measurement: asResistance(m), without: m.ref }),
  predict: (model, m, fault, absent) =>
    resistanceBetween(model, m.net, groundNet(model.board), fault, new Set([...absent, m.ref])),
  partition: (partitioner, m) => groundResistance.partition(partitioner, asResistance(m)),
  interpret: ({ model, sound }, m, value) => interpretOhm(model.board, m.net, sound(), value),
  stem: (_board, m) => `off ${m.ref.toLowerCase()}`,
  commands: [],
});

const asResistance = ({ net }: LiftedResistanceMeasurement) => ({ kind: 'groundResistance', net }) as const;

/** A lift is proposed only for parts that carry at least this share of the belief as a short. Engineering estimate. */
const LIFT_FROM = 0.02;
/** Only the likeliest parts are worth lifting. */
const MOST_LIFTS = 4;

function likelyShorts({ likely, absent, replaced }: ProposalContext): LiftedResistanceMeasurement[] {
  const found = new Map<string, LiftedResistanceMeasurement>();
  for (const { fault, p } of likely) {
    if (p < LIFT_FROM || found.size >= MOST_LIFTS) break;
    if (absent.has(fault.ref) || replaced.has(fault.ref)) continue;
    const shunt = fault.effects.find((e) => e.kind === 'shunt');
    if (shunt) found.set(`${fault.ref} ${shunt.net}`, { kind: 'liftedResistance', ref: fault.ref, net: shunt.net });
  }
  return [...found.values()];
}
