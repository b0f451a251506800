import type { Trace } from './trace';

/** A stretch in which volts and amps each follow a straight line. */
export interface SampleRange {
  /** First sample, and one past the last. */
  readonly from: number;
  readonly to: number;
}

/** Least samples of a stretch: fewer make no line. */
const LEAST_SAMPLES = 3;
/** Floors of the noise: a meter shows no finer. Engineering estimates. */
const LEAST_VOLTS_SD = 0.02;
const LEAST_AMPS_SD = 0.008;

/**
 * Cost of fitting both channels of samples [from, to) by a straight line each, in units of the noise: residual sum of
 * squares over variance, in constant time from running sums.
 */
export class LineCost {
  private readonly t: Float64Array;
  private readonly tt: Float64Array;
  private readonly volts: ChannelSums;
  private readonly amps: ChannelSums;

  constructor(readonly trace: Trace) {
    // Time is taken from the first sample, so that the sums stay small.
    const t = trace.timesS.map((v) => v - trace.timesS[0]);
    this.t = runningSum(t);
    this.tt = runningSum(t.map((v) => v * v));
    this.volts = new ChannelSums(t, trace.volts, LEAST_VOLTS_SD);
    this.amps = new ChannelSums(t, trace.amps, LEAST_AMPS_SD);
  }

  cost(from: number, to: number): number {
    const n = to - from;
    const t = this.t[to] - this.t[from];
    const stt = this.tt[to] - this.tt[from] - (t * t) / n;
    return this.volts.cost(from, to, t, stt) + this.amps.cost(from, to, t, stt);
  }
}

function runningSum(values: Float64Array): Float64Array {
  const sum = new Float64Array(values.length + 1);
  for (let i = 0; i < values.length; i++) sum[i + 1] = sum[i] + values[i];
  return sum;
}

/** Running sums of one channel: Σy, Σy², Σty. */
class ChannelSums {
  private readonly y: Float64Array;
  private readonly yy: Float64Array;
  private readonly yt: Float64Array;
  private readonly weight: number;

  constructor(t: Float64Array, values: Float64Array, leastSd: number) {
    this.y = runningSum(values);
    this.yy = runningSum(values.map((v) => v * v));
    this.yt = runningSum(values.map((v, i) => v * t[i]));
    this.weight = 1 / noiseOf(values, leastSd) ** 2;
  }

  /** Residual sum of squares of the line through [from, to), over the noise variance: Syy − Sty²/Stt. */
  cost(from: number, to: number, t: number, stt: number): number {
    const n = to - from;
    const y = this.y[to] - this.y[from];
    const syy = this.yy[to] - this.yy[from] - (y * y) / n;
    const sty = this.yt[to] - this.yt[from] - (t * y) / n;
    return this.weight * Math.max(0, stt > 1e-12 ? syy - (sty * sty) / stt : syy);
  }
}

/** Noise of a channel: from second differences, which a straight line does not enter; the median ignores the jumps. */
function noiseOf(values: Float64Array, floor: number): number {
  const seconds: number[] = [];
  for (let i = 2; i < values.length; i++) seconds.push(Math.abs(values[i] - 2 * values[i - 1] + values[i - 2]));
  if (seconds.length === 0) return floor;
  seconds.sort((a, b) => a - b);
  // A second difference of white noise has √6 times its spread; the median of |x| is 0.6745 spreads.
  return Math.max(floor, seconds[Math.floor(seconds.length / 2)] / (0.6745 * Math.sqrt(6)));
}

/** Penalty per stretch: two lines and a place for each, by the Bayesian information criterion, doubled against false alarms. */
export const penaltyOf = (samples: number): number => 2 * 5 * Math.log(samples);

/**
 * The cheapest cutting of a trace into straight stretches: exact dynamic programming with pruning (PELT, Killick,
 * Fearnhead & Eckley 2012; from memory). O(n) to O(n²).
 */
export function segment(trace: Trace): { stretches: SampleRange[]; cost: number } {
  const n = trace.timesS.length;
  const line = new LineCost(trace);
  const penalty = penaltyOf(n);
  const best = new Float64Array(n + 1).fill(Infinity);
  const previous = new Int32Array(n + 1);
  best[0] = -penalty;
  const reach = new Float64Array(n + 1);
  const open = [0];
  for (let to = LEAST_SAMPLES; to <= n; to++) {
    let kept = 0;
    for (const from of open) {
      const upTo = best[from] + line.cost(from, to);
      if (upTo + penalty < best[to]) {
        best[to] = upTo + penalty;
        previous[to] = from;
      }
      reach[kept] = upTo;
      open[kept++] = from;
    }
    // A start that is already dearer than the best end can never win again.
    let left = 0;
    for (let k = 0; k < kept; k++) if (reach[k] <= best[to]) open[left++] = open[k];
    open.length = left;
    // The next end may have a stretch of the least length that begins here.
    open.push(to - LEAST_SAMPLES + 1);
  }
  const stretches: SampleRange[] = [];
  for (let to = n; to > 0; to = previous[to]) stretches.unshift({ from: previous[to], to });
  return { stretches, cost: best[n] };
}
