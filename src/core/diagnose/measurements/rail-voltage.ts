import type { NetName, PartRef, RailId } from '../../identities';
import { z } from 'zod';
import { handiestPlace, shieldOver, type Board, type ProbePlace } from '../../board';
import { defineCommand } from '../../command-line';
import { WITHIN_SDS } from '../../math';
import { fail, ok } from '../../result';
import { formatVolt, parseFigure } from '../../units';
import type { CircuitModel } from '../circuit-model';
import type { Fault } from '../faults';
import { alternative, valuesOf, type Prediction } from '../prediction';
import type { Value } from '../value';
import {
  defineMeasurement,
  type Interpretation,
  type MeasurementEntry,
  type MeasurementLineContext,
  type Near,
} from './definition';
import { netsOfRail } from '../islands';
import { bad, good, plain } from './interpretation';
import { nameSchema } from './naming';
import { OBSERVATION } from './observation';
import { voltageScale } from './scale';

const schema = z.object({ kind: z.literal('railVoltage'), rail: nameSchema });
export type RailVoltageMeasurement = Readonly<z.infer<typeof schema>>;

const netOf = (board: Board, rail: RailId): string => board.rails.find((r) => r.id === rail)!.net;
const placeOf = (board: Board, m: RailVoltageMeasurement, near?: Near): ProbePlace | undefined =>
  handiestPlace(board, netOf(board, m.rail), near);

/** Volts of a rail, charger in and pack out. */
export const railVoltage = defineMeasurement<RailVoltageMeasurement>({
  kind: 'railVoltage',
  schema,
  label: 'voltages, battery connector too',
  id: (m) => `volts:${m.rail}`,
  offered: (board) => board.rails.map((r) => ({ kind: 'railVoltage', rail: r.id }) as const),
  misfit: (board, m) =>
    board.rails.some((r) => r.id === m.rail) ? undefined : `Expected a rail of this board; got "${m.rail}".`,
  title: (board, m, near) => `${placeOf(board, m, near)?.name ?? ''}, voltage of ${m.rail}`,
  name: (_board, m) => m.rail,
  place: placeOf,
  access: () => 'open',
  // Engineering estimate.
  minutes: () => 0.7,
  shield(board, m) {
    const place = placeOf(board, m);
    return place && shieldOver(board, place);
  },
  power: () => ({ kind: 'anyPort' }),
  meterReads: 'V',
  // Engineering estimate.
  errorRate: 0.02,
  seesSwaps: false,
  outside: false,
  checklistRank: 9,
  scale: voltageScale,
  touches: (board, m) => netsOfRail(board, m.rail),
  predict: (model, m, fault, absent) => railPrediction(model, m.rail, fault, absent),
  partition(partitioner, m) {
    const { board } = partitioner;
    const rail = board.rails.find((r) => r.id === m.rail)!;
    const power = partitioner.power(board.ports.find((p) => p.id === rail.port) ?? board.ports[0]);
    const { keys, keyOf, effects, states } = power;
    // Rails are read on the bench with the pack out.
    const solved = power.stateOf('A out');
    const index = power.railIds.indexOf(rail.id);
    return {
      ...{ keys, keyOf, effects },
      rowName(a, b) {
        const { up, talks } = states[solved[a * keys + b]];
        return up[index] !== 1 ? 0 : rail.expect.kind === 'bus' && talks ? 2 : 1;
      },
    };
  },
  interpret: ({ model }, m, value) => (value.kind === 'figure' ? interpretVolts(model.board, m.rail, value) : plain()),
  goodBoards: { fromId: (rail) => ({ kind: 'railVoltage', rail }), decide: true },
  stem: (board, m, near) => `${(placeOf(board, m, near)?.name ?? '').toLowerCase()} volt `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'pack',
      matches: (_context, { head, args }) => head === 'pack' && args.length === 1 && packVolts(args[0]) !== undefined,
      usage: [{ example: 'pack 3.85', help: 'the battery connector, charger in and pack out' }],
      parse({ board }, { args }) {
        const rail = packRail(board);
        if (!rail) return fail('Expected a board with a rail at its battery connector; this one has none.');
        return ok({
          measurement: { kind: 'railVoltage', rail },
          value: { kind: 'figure', value: packVolts(args[0])! },
          title: 'Battery connector, charger in and pack out',
        });
      },
      complete: () => ['in', 'out'],
    }),
  ],
});

function packVolts(word: string): number | undefined {
  const figure = parseFigure(word.replace(/v$/, ''));
  return figure.ok ? figure.value : undefined;
}

/** The rail that comes to the battery connector. */
export function packRail(board: Board): string | undefined {
  const nets = board.parts.filter((p) => p.kind === 'batteryConnector').flatMap((p) => Object.values(p.pins));
  return board.rails.find((r) => nets.includes(r.net))?.id;
}

/** Spread of a rail's voltage: a floor, and a share of the level, V. Engineering estimates. */
const FLOOR_SD_V = 0.03;
const SHARE_SD = 0.02;
/** No converter is as loose: beyond it the level of a rail is not known, and its window says how far it is. */
const KNOWN_TOLERANCE = 0.15;

function railPrediction(model: CircuitModel, railId: RailId, fault: Fault, absent: ReadonlySet<PartRef>): Prediction {
  const { board } = model;
  const rail = board.rails.find((r) => r.id === railId)!;
  const port = rail.port ?? board.ports[0].id;
  const level = model.solvePower(fault, absent, { port, side: 'A', pack: 'out' }).railVolts.get(railId)!;
  const { floatingV, floatingSdV, floating, zeroSdV, zero } = OBSERVATION.deadPackConnector;
  if (level === 0 && isPackNet(board, rail.net))
    return valuesOf(alternative(floatingV, floatingSdV, floating), alternative(0, zeroSdV, zero));
  const share = rail.tolerance > KNOWN_TOLERANCE ? rail.tolerance / WITHIN_SDS : SHARE_SD;
  return valuesOf(alternative(level, FLOOR_SD_V + share * level));
}

const isPackNet = (board: Board, net: NetName): boolean =>
  board.parts.some((p) => p.kind === 'batteryConnector' && Object.values(p.pins).includes(net));

/** The window of a rail at its nominal supply, V. */
export function railWindow(board: Board, railId: RailId): { expectV: number; minV: number; maxV: number } {
  const rail = board.rails.find((r) => r.id === railId)!;
  const port = board.ports.find((p) => p.id === rail.port) ?? board.ports[0];
  const expectV = rail.expect.kind === 'bus' ? port.designV : rail.expect.volts;
  return { expectV, minV: expectV * (1 - rail.tolerance), maxV: expectV * (1 + rail.tolerance) };
}

/** True where a voltage stays in its window with the whole of its ripple, taken as even to both sides. */
export const holdsRipple = (
  { minV, maxV }: { readonly minV: number; readonly maxV: number },
  volts: number,
  ripplePpV: number,
): boolean => volts - ripplePpV / 2 >= minV && volts + ripplePpV / 2 <= maxV;

/** Below this a rail reads next to nothing, V. Engineering estimate. */
const NEXT_TO_NOTHING_V = 0.2;

function interpretVolts(
  board: Board,
  railId: RailId,
  { value: volts, ripplePpV = 0, swings }: Extract<Value, { kind: 'figure' }>,
): Interpretation {
  const { minV, maxV } = railWindow(board, railId);
  if (swings) return bad('it comes and goes: what makes it cannot hold it, or a load pulls it down');
  if (volts >= minV && volts <= maxV)
    return holdsRipple({ minV, maxV }, volts, ripplePpV)
      ? good('in its window')
      : bad(`its ripple of ${formatVolt(ripplePpV)} leaves the window: look at its capacitors`);
  const wanted = `wanted ${formatVolt(minV)} to ${formatVolt(maxV)}`;
  if (Math.abs(volts) < NEXT_TO_NOTHING_V) return bad(`next to nothing, ${wanted}`);
  return bad(`${volts < minV ? 'low' : 'high'}, ${wanted}`);
}
