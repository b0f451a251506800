import type { StreamDialect } from './definition';

/** One line of a stream, in seconds, volts, amperes and degrees; time as the instrument counts it. */
export interface StreamSample {
  readonly timeS?: number;
  readonly volts?: number;
  readonly amps?: number;
  readonly celsius: readonly number[];
}

/** One line as a sample; undefined for what is none: a heading, a half line, noise. */
export function readSample(dialect: StreamDialect, line: string): StreamSample | undefined {
  const words = line.split(dialect.separator).map((w) => w.trim());
  if (words.length !== dialect.columns.length) return undefined;
  const figures = words.map((w) => figure(w, dialect.decimalComma));
  const wanted = dialect.columns.map((c, i) => [c, figures[i]] as const).filter(([c]) => c !== 'other');
  if (wanted.some(([c, f]) => f === undefined && c !== 'celsius')) return undefined;
  const of = (column: string): number | undefined => wanted.find(([c]) => c === column)?.[1];
  const time = of('time');
  return {
    timeS: time === undefined ? undefined : dialect.timeUnit === 'ms' ? time / 1000 : time,
    volts: of('volts'),
    amps: of('amps'),
    celsius: wanted.filter(([c]) => c === 'celsius').map(([, f]) => f ?? NaN),
  };
}

function figure(word: string, decimalComma: boolean): number | undefined {
  const text = decimalComma ? word.replace(',', '.') : word;
  return /^[+-]?\d+(\.\d+)?([eE][+-]?\d+)?$/.test(text) ? Number(text) : undefined;
}

/** Longer than so many usual steps between two samples is a gap. Engineering estimate. */
const GAP_STEPS = 5;
/** Samples are looked at for their usual step, at most. */
const LATEST = 64;

/**
 * A stream as it is recorded: samples in one row of time, with what is missing said. A stream that starts anew (its own time falls) goes
 * on where the clock of the page says. An hour at 10 Hz is 36,000 samples: three numbers each.
 */
export class StreamRecord {
  readonly timesS: number[] = [];
  readonly volts: number[] = [];
  readonly amps: number[] = [];
  /** Where samples are missing, s from the start. */
  readonly gaps: { readonly fromS: number; readonly toS: number; readonly why: 'lost' | 'silent' | 'restarted' }[] = [];
  /** Lines that were no sample. */
  dropped = 0;
  private offsetS = 0;
  private firstArrivalS?: number;
  private isCut = false;

  constructor(private readonly dialect: StreamDialect) {}

  /** @param arrivedS when the line came, by the clock of the page, s. */
  line(text: string, arrivedS: number): void {
    const sample = readSample(this.dialect, text);
    if (!sample) return void this.dropped++;
    this.firstArrivalS ??= arrivedS;
    const own = sample.timeS;
    const elapsed = arrivedS - this.firstArrivalS;
    const last = this.timesS.at(-1);
    if (last === undefined) this.offsetS = own === undefined ? 0 : -own;
    let timeS = own === undefined ? elapsed : own + this.offsetS;
    if (last !== undefined && own !== undefined && timeS <= last) {
      // Its time began anew: only the page's clock knows how long it was away.
      timeS = Math.max(elapsed, last + this.usualStepS());
      this.offsetS = timeS - own;
      this.gaps.push({ fromS: last, toS: timeS, why: 'restarted' });
    } else if (last !== undefined && (this.isCut || timeS - last > GAP_STEPS * this.usualStepS())) {
      this.gaps.push({ fromS: last, toS: timeS, why: this.isCut ? 'lost' : 'silent' });
    }
    this.isCut = false;
    this.timesS.push(timeS);
    this.volts.push(sample.volts ?? 0);
    this.amps.push(sample.amps ?? 0);
  }
  /** The line is gone: what comes next is after a gap. */
  cut(): void {
    this.isCut = true;
  }
  private usualStepS(): number {
    const { timesS } = this;
    if (timesS.length < 3) return Infinity;
    const latest = timesS.slice(-LATEST);
    const steps = latest.slice(1).map((t, i) => t - latest[i]);
    return steps.toSorted((a, b) => a - b)[Math.floor(steps.length / 2)];
  }
}

/** A meter that sends samples by itself, as a page records it; a line that is lost leaves a gap and no more. */
export class StreamMeter {
  private record?: StreamRecord;

  constructor(
    readonly name: string,
    private readonly dialect: StreamDialect,
    private readonly overhear: (listener: ((line: string) => void) | undefined) => void,
    private readonly nowS: () => number = () => performance.now() / 1000,
  ) {}

  /** Begins to deliver samples; a second start begins anew. */
  start(onSample: (sample: { readonly timeS: number; readonly volts: number; readonly amps: number }) => void): void {
    const record = new StreamRecord(this.dialect);
    this.record = record;
    this.overhear((line) => {
      const before = record.timesS.length;
      record.line(line, this.nowS());
      if (record.timesS.length > before)
        onSample({ timeS: record.timesS[before], volts: record.volts[before], amps: record.amps[before] });
    });
  }
  stop(): void {
    this.overhear(undefined);
  }
  /** What is missing of what was recorded last, in a sentence; nothing where it is whole. */
  get missing(): string | undefined {
    const { gaps = [], dropped = 0 } = this.record ?? {};
    if (gaps.length === 0 && dropped === 0) return undefined;
    const holes = gaps.map((g) => `${g.fromS.toFixed(1)} to ${g.toS.toFixed(1)} s (${g.why})`);
    return [
      holes.length > 0 &&
        `Samples are missing from ${holes.slice(0, 3).join(', ')}${holes.length > 3 ? ' and more' : ''}.`,
      dropped > 0 && `${dropped} lines were no sample.`,
    ]
      .filter(Boolean)
      .join(' ');
  }
}
