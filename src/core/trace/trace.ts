/** A meter's record: times in seconds, volts and amps, one entry per sample, times increasing. */
export interface Trace {
  readonly timesS: Float64Array;
  readonly volts: Float64Array;
  readonly amps: Float64Array;
}

const mean = (values: Float64Array, from: number, to: number): number => {
  let sum = 0;
  for (let i = from; i < to; i++) sum += values[i];
  return sum / (to - from);
};

/** Figures of a stretch of samples [from, to). */
export interface StretchFigures {
  readonly startS: number;
  readonly endS: number;
  readonly volts: number;
  readonly amps: number;
  /** Change of the current over the stretch, A. */
  readonly rise: number;
}

export function figuresOf(trace: Trace, from: number, to: number): StretchFigures {
  const { timesS, volts, amps } = trace;
  const end = Math.min(to, timesS.length - 1);
  const edge = Math.max(1, Math.min(5, Math.floor((to - from) / 3)));
  return {
    startS: timesS[from],
    endS: timesS[end],
    volts: mean(volts, from, to),
    amps: mean(amps, from, to),
    rise: mean(amps, to - edge, to) - mean(amps, from, from + edge),
  };
}
