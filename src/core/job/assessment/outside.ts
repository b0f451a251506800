import type { Board, Port } from '../../board';
import {
  concludeOutside,
  expectDraw,
  figuresOf,
  nameSegments,
  typedRecord,
  type Charger,
  type ExpectedDraw,
  type OutsideConclusion,
  type PackState,
  type Segment,
  type Trace,
  type WayRecord,
} from '../../trace';
import {
  decodeHeader,
  encodeHeader,
  readDialogue,
  type CaptureReading,
  type Dialogue,
  type PdPacket,
  type PdOutcome,
} from '../../usb';
import type { MeterPattern } from '../../diagnose';
import type { EventBody, JobState, TakenReading } from '../log';

type TraceBody = Extract<EventBody, { kind: 'trace' }>;
type CaptureBody = Extract<EventBody, { kind: 'capture' }>;

export interface WayView {
  readonly side: 'A' | 'B';
  readonly trace?: Trace;
  readonly segments: readonly Segment[];
}

/** What the outside readings of one port say together. */
export interface OutsideView {
  readonly expected: ExpectedDraw;
  readonly ways: readonly WayView[];
  readonly conclusion?: OutsideConclusion;
}

/** A kept trace as figures. */
const traceOf = ({ timesS, volts, amps }: TraceBody): Trace => ({
  timesS: Float64Array.from(timesS),
  volts: Float64Array.from(volts),
  amps: Float64Array.from(amps),
});

/** Most samples of a trace that are kept with a job: enough for an hour's shape. */
const MOST_SAMPLES = 1200;

/** A trace as it is kept: evenly thinned where it is long. */
export function traceBody(port: string, side: 'A' | 'B', name: string, trace: Trace): TraceBody {
  const n = trace.timesS.length;
  const step = Math.max(1, Math.ceil(n / MOST_SAMPLES));
  const thin = (values: Float64Array): number[] =>
    Array.from(
      values.filter((_, i) => i % step === 0),
      (v) => Number(v.toFixed(4)),
    );
  return {
    kind: 'trace',
    port,
    side,
    name,
    timesS: thin(trace.timesS),
    volts: thin(trace.volts),
    amps: thin(trace.amps),
  };
}

/**
 * What a trace says to the belief: how the meter behaved and, where it was steady, the figures of its last seconds. A
 * meter that comes and goes has no settled figure.
 */
export function traceReadings(port: Port, body: TraceBody, expected: ExpectedDraw): EventBody[] {
  const { side } = body;
  const trace = traceOf(body);
  const pattern = patternOf(nameSegments(trace, expected));
  const watched: EventBody = {
    kind: 'reading',
    measurement: { kind: 'meterPattern', port: port.id, side },
    value: { kind: 'choice', choice: pattern },
  };
  if (pattern === 'swing' || pattern === 'restart') return [watched];
  const { volts, amps } = settled(trace);
  const value = { kind: 'pair', volts: Number(volts.toFixed(3)), amps: Number(amps.toFixed(3)) } as const;
  return [watched, { kind: 'reading', measurement: { kind: 'usbMeter', port: port.id, side }, value }];
}

function patternOf(segments: readonly Segment[]): MeterPattern {
  const has = (name: Segment['name']): boolean => segments.some((s) => s.name === name);
  return has('swing') ? 'swing' : has('restart') ? 'restart' : has('earlyLoad') ? 'early' : 'steady';
}

/** The last part of a trace stands for the reading, s. */
const SETTLED_S = 5;

function settled(trace: Trace): { volts: number; amps: number } {
  const end = trace.timesS[trace.timesS.length - 1];
  const from = trace.timesS.findIndex((t) => t >= end - SETTLED_S);
  const { volts, amps } = figuresOf(trace, from, trace.timesS.length);
  return { volts, amps };
}

/**
 * What a capture says to the belief: where the conversation stopped. Which way the plug was in follows from the line that
 * talked; where neither did, from the user.
 */
export function captureReading(port: Port, line: 'CC1' | 'CC2' | null, plugged: 'A' | 'B', stop: PdOutcome): EventBody {
  const side = line === null ? plugged : port.sides[line === 'CC1' ? 0 : 1].side;
  return {
    kind: 'reading',
    measurement: { kind: 'pdNegotiation', port: port.id, side },
    value: { kind: 'choice', choice: stop },
  };
}

export function captureBody(port: string, name: string, capture: CaptureReading): CaptureBody {
  const packets = capture.packets.slice(0, 400).map((p) => ({
    atS: p.atS,
    set: p.set,
    headerWord: p.header ? encodeHeader(p.header) : null,
    objects: [...p.objects].slice(0, 7),
    intact: p.intact,
  }));
  return { kind: 'capture', port, name, line: capture.line ?? null, durationS: capture.durationS, packets };
}

/** The dialogue of a kept capture. */
export function dialogueOf(board: Board, body: CaptureBody): Dialogue {
  const packets = body.packets.map((p): PdPacket => ({
    atS: p.atS,
    set: p.set,
    objects: p.objects,
    intact: p.intact,
    header: p.headerWord === null ? undefined : decodeHeader(p.headerWord),
    trouble: p.intact ? undefined : 'its check sum fails',
  }));
  return readDialogue(board, body.port, { packets, line: body.line ?? undefined });
}

const isOf = (state: JobState, time: OutsideTime, { work }: { readonly work: number }): boolean =>
  time === 'ever' || (work === state.work) === (time === 'now');

/** The newest trace of a plug way that was taken at the time that is asked for. */
export function traceAt(state: JobState, port: string, side: 'A' | 'B', time: OutsideTime): TraceBody | undefined {
  const way = `${port} ${side}`;
  return [state.traces[way], state.tracesBefore[way]].find((t) => t !== undefined && isOf(state, time, t));
}

/** Whether what was read at any time counts, or only what was read before the last work on the board, or after it. */
export type OutsideTime = 'ever' | 'before' | 'now';

/** How the pack was when the port was last read: out, or taken as partly charged. */
export function packAtPort(port: Port, state: JobState): PackState {
  const last = state.readings.filter((r) => r.measurement.kind === 'usbMeter' && r.measurement.port === port.id).at(-1);
  return (last?.packOut ?? state.packOut) ? 'out' : 'partly';
}

/** Traces where there are any, typed readings where not, read against what this charger and pack should give. */
export function outsideOf(
  port: Port,
  state: JobState,
  charger: Charger,
  packState?: PackState,
  time: OutsideTime = 'ever',
): OutsideView {
  const pack = packState ?? packAtPort(port, state);
  const expected = expectDraw(port, charger, pack);
  const ways = (['A', 'B'] as const).map((side): WayView => wayOf(port, side, state, expected, time));
  const record = (way: WayView): WayRecord | undefined => (way.segments.length > 0 ? way : undefined);
  const [a, b] = ways.map(record);
  return { expected, ways, conclusion: a || b ? concludeOutside(port, a, b, pack) : undefined };
}

const SEGMENT_OF = { swing: 'swing', restart: 'restart', early: 'earlyLoad' } as const;

function wayOf(port: Port, side: 'A' | 'B', state: JobState, expected: ExpectedDraw, time: OutsideTime): WayView {
  const counts = (read: { readonly work: number }): boolean => isOf(state, time, read);
  const kept = traceAt(state, port.id, side, time);
  if (kept) {
    const trace = traceOf(kept);
    return { side, trace, segments: nameSegments(trace, expected) };
  }
  const latest = (kind: 'usbMeter' | 'meterPattern'): TakenReading['value'] | undefined =>
    [...state.readings]
      .reverse()
      .find(
        (r) =>
          counts(r) && r.measurement.kind === kind && r.measurement.port === port.id && r.measurement.side === side,
      )?.value;
  const typed = latest('usbMeter');
  const segments = typed?.kind === 'pair' ? typedRecord(typed.volts, typed.amps, expected).segments : [];
  const watched = latest('meterPattern');
  if (watched?.kind !== 'choice' || watched.choice === 'steady') return { side, segments };
  const figures = segments[0] ?? typedRecord(0, 0, expected).segments[0];
  return { side, segments: [{ ...figures, name: SEGMENT_OF[watched.choice as keyof typeof SEGMENT_OF] }] };
}
