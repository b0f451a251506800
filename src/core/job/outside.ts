import type { Port } from '../board';
import {
  concludeOutside,
  expectDraw,
  nameSegments,
  typedRecord,
  type Charger,
  type ExpectedDraw,
  type OutsideConclusion,
  type Segment,
  type Trace,
  type WayRecord,
} from '../trace';
import { decodeHeader, encodeHeader, readDialogue, type CaptureReading, type Dialogue, type PdPacket } from '../usb';
import type { Board } from '../board';
import type { EventBody } from './events';
import type { JobState } from './fold';

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

/** Traces where there are any, typed readings where not, read against what this charger and pack should give. */
export function outsideOf(port: Port, state: JobState, charger: Charger): OutsideView {
  const pack = state.packOut ? 'out' : 'partly';
  const expected = expectDraw(port, charger, pack);
  const ways = (['A', 'B'] as const).map((side): WayView => wayOf(port, side, state, expected));
  const record = (way: WayView): WayRecord | undefined => (way.segments.length > 0 ? way : undefined);
  const [a, b] = ways.map(record);
  return { expected, ways, conclusion: a || b ? concludeOutside(port, a, b, pack) : undefined };
}

function wayOf(port: Port, side: 'A' | 'B', state: JobState, expected: ExpectedDraw): WayView {
  const kept = state.traces[`${port.id} ${side}`];
  if (kept) {
    const trace = {
      timesS: Float64Array.from(kept.timesS),
      volts: Float64Array.from(kept.volts),
      amps: Float64Array.from(kept.amps),
    };
    return { side, trace, segments: nameSegments(trace, expected) };
  }
  const typed = [...state.readings]
    .reverse()
    .find((r) => r.measurement.kind === 'usb' && r.measurement.port === port.id && r.measurement.side === side);
  if (typed?.value.kind !== 'pair') return { side, segments: [] };
  return { side, segments: typedRecord(typed.value.volts, typed.value.amps, expected).segments };
}
