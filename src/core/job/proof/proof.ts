import type { NetName } from '../../identities';
import type { Board, PlugSide, Port } from '../../board';
import {
  SHORT_BELOW_OHM,
  SOUND,
  idealReading,
  valueLabel,
  interpretReading,
  type Measurement,
  type Predictor,
  type Unsteady,
} from '../../diagnose';
import { CHARGERS, expectDraw, type PackState } from '../../trace';
import { judgeGates, proveRails, type Gate, type RailProof } from '../../proof';
import type { ReferenceTable } from '../../reference';
import { seatMissing, walkJoints, type JointWalk } from './joint-walk';
import { viewSoak } from '../log';
import { takenOnBoardAsIs, type JobFields, type TakenReading } from '../log';

export interface PlugProof {
  readonly port: string;
  readonly side: PlugSide;
  /** Undefined while it has not been tried on the board as it is now. */
  readonly healthy: boolean | undefined;
  readonly volts?: number;
  readonly amps?: number;
}

export interface JobProof {
  readonly rails: RailProof;
  readonly plugs: readonly PlugProof[];
  readonly shorts: readonly {
    readonly net: NetName;
    readonly gone: boolean | undefined;
    /** What a sound board reads there, in words. */
    readonly expected: string;
  }[];
  /** The walks along the joints of placed parts. */
  readonly joints: readonly JointWalk[];
  readonly functions: readonly { readonly id: string; readonly what: string; readonly works: boolean | undefined }[];
  readonly gates: readonly Gate[];
  readonly allHold: boolean;
}

/** What is proven of the board as it is now: readings from before the last work on it prove nothing. */
export function proveJob(predictor: Predictor, state: JobFields, references: ReferenceTable = {}): JobProof {
  const { board } = predictor;
  const now = state.readings.filter((r) => takenOnBoardAsIs(state, r));
  const measured = new Map<string, number>();
  const unsteady = new Map<string, Unsteady>();
  for (const r of now) {
    if (r.measurement.kind !== 'railVoltage' || r.value.kind !== 'figure') continue;
    const { value: volts, ripplePpV, swings } = r.value;
    measured.set(r.measurement.rail, volts);
    unsteady.set(r.measurement.rail, { ripplePpV, swings });
  }
  const rails = proveRails(board, measured, unsteady);
  const plugs = board.ports.flatMap((port) => port.sides.map((s) => plugProof(board, state, now, port.id, s.side)));
  const shorts = shortsOf(predictor, state, now);
  const joints = walkJoints(board, state, references);
  const functions = board.functions.map((f) => {
    const last = latest(now, (m) => m.kind === 'functionTest' && m.fn === f.id);
    return { id: f.id, what: f.what, works: last && last.value.kind === 'pass' };
  });
  const gates = judgeGates({
    rails,
    plugs,
    shorts,
    functions,
    imageSound: imageSound(state),
    seat: seatMissing(joints),
    soak: soakMissing(state),
  });
  return { rails, plugs, shorts, joints, functions, gates, allHold: gates.every((g) => g.holds) };
}

const latest = (readings: readonly TakenReading[], wanted: (m: Measurement) => boolean): TakenReading | undefined =>
  [...readings].reverse().find((r) => wanted(r.measurement));

function plugProof(
  board: Board,
  state: JobFields,
  now: readonly TakenReading[],
  port: string,
  side: PlugSide,
): PlugProof {
  const last = latest(now, (m) => m.kind === 'usbMeter' && m.port === port && m.side === side);
  if (last?.value.kind !== 'pair') return { port, side, healthy: undefined };
  const { volts, amps } = last.value;
  const at = board.ports.find((p) => p.id === port)!;
  return { port, side, volts, amps, healthy: provesPlug(at, volts, amps, state.packOut) };
}

/** A fixed supply holds its level within so much of it. Source: USB Power Delivery specification, vSrcNew ±5 %. */
const LEVEL_TOLERANCE = 0.05;

/**
 * A way is proven at its full level with the current that a large charger and the pack let the device take. With the pack
 * in more than that is no fault: accessories are charged beside it. With it out a board draws its own use or nothing; where
 * it charges all the same, the pack is in and nobody said so.
 */
function provesPlug(port: Port, volts: number, amps: number, packOut: boolean): boolean {
  const window = (pack: PackState): readonly [number, number] =>
    expectDraw(port, CHARGERS[CHARGERS.length - 1], pack).amps;
  const isCharging = amps >= window('partly')[0];
  const isIdle = packOut && amps <= window('out')[1];
  return Math.abs(volts - port.designV) <= LEVEL_TOLERANCE * port.designV && (isCharging || isIdle);
}

/** Nets that read as a short at any time, and whether the board as it is now still does. */
function shortsOf(predictor: Predictor, state: JobFields, now: readonly TakenReading[]): JobProof['shorts'] {
  const shorted = (r: TakenReading): boolean => {
    const low = r.value.kind === 'beep' || (r.value.kind === 'figure' && r.value.value < SHORT_BELOW_OHM);
    return low && interpretReading(predictor, r.measurement, r.value, new Set(r.absent)).state === 'bad';
  };
  const netOf = (r: TakenReading): string[] => (r.measurement.kind === 'groundResistance' ? [r.measurement.net] : []);
  const nets = [...new Set(state.readings.filter(shorted).flatMap(netOf))];
  return nets.map((net) => {
    const last = latest(now, (m) => m.kind === 'groundResistance' && m.net === net);
    const m = { kind: 'groundResistance', net } as const;
    return { net, gone: last && !shorted(last), expected: valueLabel(m, idealReading(predictor, m, SOUND).value) };
  });
}

function imageSound(state: JobFields): boolean | undefined {
  if (!state.written && !state.images.merged && state.decision?.action !== 'rewrite') return undefined;
  const { written, images } = state;
  return written !== undefined && images.merged?.sound === true && images.merged.sha256 === written.sha256;
}

/** A soak that was begun has to hold before the job closes; only an ended one needs no clock. */
function soakMissing({ soaks }: JobFields): string | undefined {
  const last = soaks.at(-1);
  if (!last) return undefined;
  if (!last.endedAt) return 'still on';
  const { state, label } = viewSoak(last, last.endedAt);
  return state === 'held' ? '' : label;
}
