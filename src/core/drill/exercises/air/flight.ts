import type { PartRef } from '../../../identities';
import { z } from 'zod';
import { partByRef, type Board } from '../../../board';
import {
  NOMINAL_STATION,
  nozzleFor,
  simulateHeat,
  startingPlan,
  withCopper,
  withMultiplier,
  type HeatCurves,
  type HeatPlan,
  type HeatStep,
  type Station,
} from '../../../heat';
import { seededRandom } from '../../../math';

/** A run flown by hand, as a file: which chip on which board; what the station and the board truly are is drawn from the seed. */
export const airDrillSchema = z.strictObject({
  kind: z.literal('air'),
  format: z.literal(1),
  name: z.string().trim().min(1).max(80),
  boardId: z.string().min(1).max(80),
  ref: z.string().min(1).max(40).describe('the chip to be lifted'),
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31),
  grade: z.number().int().min(1).max(10),
});
export type AirDrill = z.infer<typeof airDrillSchema>;

/** So long a run may last, s. Engineering estimate: who is not through by then has the wrong air. */
export const MOST_FLIGHT_S = 300;
/** Moves of one run. */
const MOST_MOVES = 400;

const atS = z.number().int().min(0).max(MOST_FLIGHT_S);

/** The dial, the flow and the height as they are from a moment on; the nudge; the lift. */
export const airMoveSchema = z.discriminatedUnion('do', [
  z.strictObject({
    do: z.literal('air'),
    atS,
    airSetC: z.number().min(100).max(480).nullable().describe('nothing: the air is away'),
    flowLpm: z.number().min(5).max(120),
    heightMm: z.number().min(4).max(40),
  }),
  z.strictObject({ do: z.literal('nudge'), atS }),
  z.strictObject({ do: z.literal('lift'), atS }),
]);
export type AirMove = z.infer<typeof airMoveSchema>;
export type AirSetting = Pick<HeatStep, 'airSetC' | 'flowLpm' | 'heightMm'>;

/** What was done, in the order in which it was done. */
export const flightSchema = z.strictObject({
  nozzleMm: z.number().min(2).max(20),
  covers: z.array(z.string().max(40)).max(8).describe('parts under a cover'),
  plateSetC: z
    .number()
    .min(30)
    .max(250)
    .nullable()
    .describe('a plate below, at its temperature already; nothing: none'),
  moves: z
    .array(airMoveSchema)
    .max(MOST_MOVES)
    .refine((moves) => moves.every((m, i) => i === 0 || moves[i - 1].atS <= m.atS), 'expected moves in their order'),
});
export type Flight = z.infer<typeof flightSchema>;

/** What the air and the board truly are. */
export interface AirTruth {
  readonly board: Board;
  readonly station: Station;
}

/** The dial lies by so much of the rise that reaches the board, and the board's copper by so much. Engineering estimates. */
const AIR_OFF = 0.15;
const OUTLET_OFF = 0.04;
const COPPER_OFF = 0.15;

/** Draws a station and a board that are not quite what they are taken for. The same drill is always the same. */
export function airTruth(board: Board, { seed }: Pick<AirDrill, 'seed'>): AirTruth {
  const random = seededRandom(seed);
  const off = (by: number): number => 1 + by * (2 * random() - 1);
  const station = withMultiplier(NOMINAL_STATION, NOMINAL_STATION.multiplier * off(AIR_OFF));
  return {
    station: { ...station, outletEfficiency: NOMINAL_STATION.outletEfficiency * off(OUTLET_OFF) },
    board: withCopper(board, off(COPPER_OFF)),
  };
}

/** The nozzle that a chip asks for, the air as it is usually begun with, and what may be covered: the nearest parts that have a limit. */
export function airSetup(board: Board, ref: PartRef): { readonly nozzleMm: number; readonly setting: AirSetting } {
  const part = partByRef(board, ref)!;
  const nozzleMm = nozzleFor(NOMINAL_STATION.nozzlesMm, board.packages[part.package].bodyMm);
  const [{ airSetC, flowLpm, heightMm }] = startingPlan(ref, board.alloy, nozzleMm).steps;
  return { nozzleMm, setting: { airSetC, flowLpm, heightMm } };
}

/** After the lift the air goes away at once, and the board cools so long before it is judged, s. */
const AWAY_S = 1;
const COOLS_S = 30;

const AIR_OFF_STEP = (setting: AirSetting, durationS: number): HeatStep => ({
  ...setting,
  name: 'air away',
  airSetC: null,
  durationS,
});

/**
 * The heat plan that a flight amounts to: a step for each setting that lasted, whole seconds.
 * @param untilS the last setting stays until then; a lift before it ends the air a second later.
 */
export function planFlown(board: Board, { ref }: Pick<AirDrill, 'ref'>, flight: Flight, untilS: number): HeatPlan {
  const lift = liftedAtS(flight);
  const endS = lift === undefined ? untilS : Math.min(untilS, lift + AWAY_S);
  const settings = flight.moves.filter((m) => m.do === 'air' && m.atS < endS) as Extract<AirMove, { do: 'air' }>[];
  const steps = settings.flatMap(({ atS: from, airSetC, flowLpm, heightMm }, i): HeatStep[] => {
    const durationS = (settings[i + 1]?.atS ?? endS) - from;
    return durationS > 0 ? [{ name: `from ${from} s`, durationS, airSetC, flowLpm, heightMm }] : [];
  });
  const usual = airSetup(board, ref).setting;
  const waits = settings[0]?.atS ?? endS;
  const before = waits > 0 ? [AIR_OFF_STEP(usual, waits)] : [];
  const after = lift !== undefined && untilS > endS ? [AIR_OFF_STEP(usual, untilS - endS)] : [];
  return {
    ...startingPlan(ref, board.alloy, flight.nozzleMm),
    covers: [...flight.covers],
    plateSetC: flight.plateSetC,
    steps: [...before, ...steps, ...after],
  };
}

export const liftedAtS = ({ moves }: Pick<Flight, 'moves'>): number | undefined =>
  moves.find((m) => m.do === 'lift')?.atS;

/** When all is over: the board has cooled after the lift, or the air went away for good, or nobody lifted in time. */
export function flightEndS(flight: Flight): number {
  const last = flight.moves.at(-1)?.atS ?? 0;
  return Math.min(MOST_FLIGHT_S, (liftedAtS(flight) ?? last) + COOLS_S);
}

/** The true temperatures of a flight up to a moment, at whole seconds: the full solver, as every plan is computed. */
export function flyAir(board: Board, drill: AirDrill, flight: Flight, untilS: number): HeatCurves {
  const truth = airTruth(board, drill);
  const plan = planFlown(board, drill, flight, Math.max(1, untilS));
  return simulateHeat(truth.board, truth.station, plan, { frames: false })!;
}
