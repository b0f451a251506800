import type { PartRef } from '../../identities';
import { z } from 'zod';
import { findPlace } from '../../board';
import { defineCommand, oneOf } from '../../command-line';
import { fail, ok } from '../../result';
import type { CircuitModel } from '../circuit-model';
import { OUTSIDE_THINGS, type Fault, type OutsideThing } from '../faults';
import { verdict } from '../prediction';
import { netsAtPort } from '../islands';
import { defineMeasurement, type MeasurementEntry, type MeasurementLineContext } from './definition';
import { good, plain } from './interpretation';
import { BAD_WORDS, GOOD_WORDS, portNames, severalPorts, takePort } from './line-value';
import { nameSchema, noShield, portStem, unknownPort } from './naming';
import { OBSERVATION } from './observation';
import { portFlags } from './port-flags';
import { verdictScale } from './scale';

const schema = z.object({ kind: z.literal('knownGoodSwap'), port: nameSchema, what: z.enum(OUTSIDE_THINGS) });
export type KnownGoodSwapMeasurement = Readonly<z.infer<typeof schema>>;

/** Minutes to try a known-good one. Engineering estimates. */
export const SWAP_MINUTES: Readonly<Record<OutsideThing, number>> = { charger: 1, cable: 1, pack: 4 };

/** A known-good charger, cable or pack in place of what was used: does it charge then? */
export const knownGoodSwap = defineMeasurement<KnownGoodSwapMeasurement>({
  kind: 'knownGoodSwap',
  schema,
  label: 'swap of charger, cable, pack',
  id: (m) => `swap:${m.port}:${m.what}`,
  offered: (board) =>
    board.ports.flatMap((port) =>
      OUTSIDE_THINGS.map((what) => ({ kind: 'knownGoodSwap', port: port.id, what }) as const),
    ),
  misfit: (board, m) => unknownPort(board, m.port),
  title: (_board, m) => `Try a known-good ${m.what} at ${m.port}`,
  name: (board, m) => `Known-good ${m.what}${board.ports.length > 1 ? ` at ${m.port}` : ''}`,
  place: (board, m) => findPlace(board, m.port),
  access: (m) => (m.what === 'pack' ? 'open' : 'closed'),
  minutes: (_board, m) => SWAP_MINUTES[m.what],
  shield: noShield,
  power: (m) => ({ kind: 'port', port: m.port }),
  // Engineering estimate.
  errorRate: 0.02,
  seesSwaps: false,
  outside: true,
  checklistRank: 6,
  scale: verdictScale('charges then', 'no change'),
  touches: (board, m) => netsAtPort(board, m.port),
  predict: (model, m, fault, absent) => verdict(swapFails(model, m, fault, absent)),
  partition(partitioner, m) {
    const { port, charges, ...keys } = partitioner.atPort(m.port);
    const cc = port.sides.find((s) => s.side === 'A')!.ccNet;
    const things = keys.effects.map((list) => portFlags(partitioner.board, list, cc).thing);
    return {
      ...keys,
      rowName(a, b) {
        const [p, q] = [things[a] === m.what ? 0 : a, things[b] === m.what ? 0 : b];
        const otherOutside = things[p] !== undefined || things[q] !== undefined;
        return 2 * Number(otherOutside) + Number(charges(p, q));
      },
    };
  },
  interpret: (_context, m, value) =>
    value.kind === 'pass' ? good(`the ${m.what} used before is at fault`) : plain(`not the ${m.what}`),
  stem: (board, m) => `swap ${portStem(board, m.port)}${m.what} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'swap',
      usage: [
        { example: 'swap charger works', help: 'a known-good charger, cable or pack: works, or same as before' },
        { example: 'swap j2 cable same', help: 'the same, by port where there are several' },
      ],
      parse({ board }, { args }) {
        const taken = takePort(board, args, 'swap');
        if (!taken.ok) return taken;
        const { port, rest } = taken.value;
        const what = oneOf(OUTSIDE_THINGS, rest[0], 'after "swap"');
        if (!what.ok) return what;
        const answer = rest[1] ?? '';
        if (answer !== 'same' && !GOOD_WORDS.has(answer) && !BAD_WORDS.has(answer))
          return fail(`Expected works or same after "swap ${what.value}"; got "${answer}".`);
        return ok({
          measurement: { kind: 'knownGoodSwap', port, what: what.value },
          value: { kind: GOOD_WORDS.has(answer) ? 'pass' : 'fail' },
        });
      },
      complete({ board }, words) {
        if (words.length === 2) return [...severalPorts(board), ...OUTSIDE_THINGS];
        return words.length === 3 && portNames(board).includes(words[1]) ? OUTSIDE_THINGS : ['works', 'same'];
      },
    }),
  ],
});

/** With a known-good one it charges when nothing else is wrong. */
function swapFails(
  model: CircuitModel,
  { port, what }: KnownGoodSwapMeasurement,
  fault: Fault,
  absent: ReadonlySet<PartRef>,
): number {
  const { otherOutsideFails, brokenFails, soundFails } = OBSERVATION.knownGoodSwap;
  const rest = fault.effects.filter((e) => e.kind !== 'outside' || e.what !== what);
  if (rest.some((e) => e.kind === 'outside')) return otherOutsideFails;
  const left = { ...fault, id: `${fault.id}-${what}`, effects: rest };
  const charges = (['A', 'B'] as const).every((side) => model.meterCase(port, side, left, absent) === 'healthy');
  return charges ? soundFails : brokenFails;
}
