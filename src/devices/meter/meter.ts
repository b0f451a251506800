/** One sample of a USB meter in line. */
export interface MeterSample {
  readonly timeS: number;
  readonly volts: number;
  readonly amps: number;
}

/** A USB meter as the bench sees it, real or simulated. */
export interface MeterDevice {
  /** What it calls itself, for example `simulated meter`. */
  readonly name: string;
  /** Begins to deliver samples; a second start begins anew. */
  start(onSample: (sample: MeterSample) => void): void;
  /** Ends delivery; no sample comes after it. */
  stop(): void;
}
