import type { ExpectedDraw } from './expect';
import { segment, type SampleRange } from './segment';
import { figuresOf, type StretchFigures, type Trace } from './trace';

/** What a stretch of a meter's record is. */
export const SEGMENT_NAMES = [
  'nothing',
  'noTalk',
  'idle',
  'preCharge',
  'ramp',
  'hold',
  'fast',
  'earlyLoad',
  'swing',
  'restart',
] as const;
export type SegmentName = (typeof SEGMENT_NAMES)[number];

export const SEGMENT_WORDS: Record<SegmentName, string> = {
  nothing: 'nothing at all',
  noTalk: 'five volts, no conversation',
  idle: 'full level, next to no current',
  preCharge: 'pre-charge',
  ramp: 'current climbs',
  hold: 'charging steadily',
  fast: 'charging fast',
  earlyLoad: 'half an ampere at once',
  swing: 'swings, cannot settle',
  restart: 'restarts again and again',
};

export interface Segment extends StretchFigures {
  readonly name: SegmentName;
  /** Seconds from one to the next, where the stretch repeats. */
  readonly periodS?: number;
}

/** Below this the line is dead (vSafe0V, USB Type-C specification). */
const DEAD_V = 0.8;
/** A meter's own zero, A. Common practice. */
const ZERO_A = 0.035;
/** From this share of the expected level on, the level is reached. Contract tolerance is 5 %. */
const LEVEL_SHARE = 0.9;
/** A climb of this much in one stretch is a ramp, A. Engineering estimate. */
const RAMP_A = 0.12;
/** Pre-charge of a flat pack, A. Common practice: about 0.1. */
const PRE_CHARGE_A: readonly [number, number] = [0.05, 0.19];
/** The processor's side takes about half an ampere at once (common practice), before any level is reached. */
const EARLY_LOAD_A: readonly [number, number] = [0.35, 0.75];
/** Off and on within this many seconds is a swing; slower is a restart. Engineering estimate. */
const SWING_PERIOD_S = 8;
/** So many repetitions make a pattern. */
const LEAST_REPEATS = 3;

/** Cuts a trace into named segments; repetition is found first, since its pieces alone would look like something else. */
export function nameSegments(trace: Trace, expected: ExpectedDraw): Segment[] {
  const { stretches } = segment(trace);
  const plain = stretches.map((s) => nameOne(trace, s, expected));
  return mergeSame(foldRepeats(trace, plain, expected));
}

function nameOne(trace: Trace, { from, to }: SampleRange, expected: ExpectedDraw): Segment {
  const figures = figuresOf(trace, from, to);
  return { ...figures, name: nameFor(figures, expected) };
}

/** The name of one steady or straight stretch. */
export function nameFor(f: StretchFigures, expected: ExpectedDraw): SegmentName {
  if (f.volts < DEAD_V) return 'nothing';
  const reached = f.volts >= LEVEL_SHARE * expected.volts;
  if (!reached && f.volts < 6 && f.amps < 0.2) return 'noTalk';
  if (!reached && f.amps >= EARLY_LOAD_A[0] && f.amps <= EARLY_LOAD_A[1]) return 'earlyLoad';
  if (f.rise > RAMP_A) return 'ramp';
  if (f.amps < ZERO_A) return 'idle';
  if (f.amps >= PRE_CHARGE_A[0] && f.amps <= PRE_CHARGE_A[1] && f.amps < expected.amps[0] * 0.8) return 'preCharge';
  return f.amps > expected.amps[1] * 1.15 ? 'fast' : f.amps < PRE_CHARGE_A[0] ? 'idle' : 'hold';
}

/** Times at which the line comes back after a fall, s. */
function comebacks(trace: Trace, expected: ExpectedDraw): number[] {
  const { timesS, volts, amps } = trace;
  const highV = Math.min(4, 0.6 * expected.volts);
  const times: number[] = [];
  let low = false;
  let busy = false;
  for (let i = 0; i < timesS.length; i++) {
    const isLow = volts[i] < highV / 2;
    if (low && !isLow && busy) times.push(timesS[i]);
    if (!isLow && amps[i] > ZERO_A) busy = true;
    low = isLow;
  }
  return times;
}

function foldRepeats(trace: Trace, segments: Segment[], expected: ExpectedDraw): Segment[] {
  const times = comebacks(trace, expected);
  if (times.length < LEAST_REPEATS) return segments;
  const gaps = times.slice(1).map((t, i) => t - times[i]);
  const periodS = [...gaps].sort((a, b) => a - b)[Math.floor(gaps.length / 2)];
  const even = gaps.filter((g) => Math.abs(g - periodS) < 0.35 * periodS).length >= 0.7 * gaps.length;
  if (!even) return segments;
  const name: SegmentName = periodS < SWING_PERIOD_S ? 'swing' : 'restart';
  const startS = times[0] - periodS;
  const endS = times[times.length - 1] + periodS;
  const before = segments.filter((s) => s.endS <= startS + 0.3 * periodS);
  const after = segments.filter((s) => s.startS >= endS);
  const first = before.length > 0 ? before[before.length - 1].endS : trace.timesS[0];
  const last = after.length > 0 ? after[0].startS : trace.timesS[trace.timesS.length - 1];
  const indexOf = (s: number): number => trace.timesS.findIndex((t) => t >= s - 1e-9);
  const figures = figuresOf(trace, indexOf(first), Math.max(indexOf(first) + 1, indexOf(last)));
  return [...before, { ...figures, startS: first, endS: last, name, periodS }, ...after];
}

/** Neighbours of one name are one segment. */
function mergeSame(segments: Segment[]): Segment[] {
  const merged: Segment[] = [];
  for (const s of segments) {
    const last = merged[merged.length - 1];
    if (!last || last.name !== s.name || s.periodS !== undefined) {
      merged.push(s);
      continue;
    }
    const [a, b] = [last.endS - last.startS, s.endS - s.startS];
    const blend = (x: number, y: number): number => (x * a + y * b) / (a + b || 1);
    merged[merged.length - 1] = {
      ...last,
      endS: s.endS,
      volts: blend(last.volts, s.volts),
      amps: blend(last.amps, s.amps),
      rise: last.rise + s.rise,
    };
  }
  return merged;
}
