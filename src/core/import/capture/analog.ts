/** Samples after the first swing from which the two levels are taken. */
const LEARNED_FROM = 4000;
/** Samples that wait for a swing at most; what stays quieter has no edges. */
const MOST_WAITING = 1_000_000;
/** Least swing of a line that talks, V. Source: USB Power Delivery, transmitter swing 1.05 to 1.2 V; half of it for a loaded or divided line. */
const LEAST_SWING_V = 0.3;
/** Share of the swing by which a level must pass the threshold. Engineering estimate. */
const HYSTERESIS = 0.12;

/** Makes levels of volts: the threshold lies midway between the two levels that the line is at while it talks. */
export class Slicer {
  private times: number[] = [];
  private volts: number[] = [];
  private low = Infinity;
  private high = -Infinity;
  private swingAt = -1;
  private level = -1;
  private up = NaN;
  private down = NaN;

  constructor(private readonly edge: (at: number) => void) {}

  sample(at: number, volts: number): void {
    if (Number.isNaN(volts)) return;
    if (!Number.isNaN(this.up)) {
      this.slice(at, volts);
      return;
    }
    this.times.push(at);
    this.volts.push(volts);
    if (volts < this.low) this.low = volts;
    if (volts > this.high) this.high = volts;
    if (this.swingAt < 0 && this.high - this.low > LEAST_SWING_V) this.swingAt = this.times.length;
    if (this.swingAt >= 0 && this.times.length - this.swingAt >= LEARNED_FROM) this.learn();
    else if (this.swingAt < 0 && this.times.length > MOST_WAITING) {
      this.times = [];
      this.volts = [];
    }
  }

  finish(): void {
    if (Number.isNaN(this.up) && this.swingAt >= 0) this.learn();
  }

  /** The threshold, V; NaN where the line never swung. */
  get thresholdV(): number {
    return (this.up + this.down) / 2;
  }

  private learn(): void {
    const from = Math.max(0, this.swingAt - 2);
    const sorted = this.volts.slice(from).sort((a, b) => a - b);
    const middle = (this.low + this.high) / 2;
    const at = (list: readonly number[]): number => list[Math.floor(list.length / 2)];
    const lower = sorted.filter((v) => v <= middle);
    const upper = sorted.filter((v) => v > middle);
    const [low, high] = lower.length > 0 && upper.length > 0 ? [at(lower), at(upper)] : [this.low, this.high];
    const threshold = (low + high) / 2;
    this.up = threshold + HYSTERESIS * (high - low);
    this.down = threshold - HYSTERESIS * (high - low);
    const { times, volts } = this;
    this.times = [];
    this.volts = [];
    for (let i = 0; i < times.length; i++) this.slice(times[i], volts[i]);
  }

  private slice(at: number, volts: number): void {
    const level = volts > this.up ? 1 : volts < this.down ? 0 : this.level;
    if (level === this.level) return;
    if (this.level >= 0) this.edge(at);
    this.level = level;
  }
}
