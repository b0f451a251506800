import { seededRandom, type Random } from '../../core/math';
import type { ProbePlace } from '../../core/calibration';
import type { Station } from '../../core/heat';
import { SimulatedStation, type Blow } from './simulated-station';

/** One row of a thermocouple logger. */
export interface LoggerSample {
  readonly timeS: number;
  readonly readC: readonly number[];
}

/** A thermocouple logger as the bench sees it, real or simulated. */
export interface LoggerDevice {
  readonly places: readonly ProbePlace[];
  /** Begins to deliver one row a second; a second start begins anew. */
  start(onSample: (sample: LoggerSample) => void): void;
  stop(): void;
}

const seedOf = (id: string): number => [...id].reduce((sum, c) => (31 * sum + c.charCodeAt(0)) % 1_000_003, 7);

/** The simulated twin of a station of this bench: its hidden parameters are its own and stay; its noise does not. */
export function twinOf(station: Station, noise: Random): SimulatedStation {
  return new SimulatedStation(station, SimulatedStation.drawTruth(seededRandom(seedOf(station.id))), noise);
}

/** Two thermocouples on the coupon under a simulated station, as fast as asked. */
export class SimulatedLogger implements LoggerDevice {
  readonly places: readonly ProbePlace[] = ['slug', 'far'];
  private timer: ReturnType<typeof setInterval> | undefined;

  constructor(
    private readonly station: SimulatedStation,
    private readonly blow: Blow,
    private readonly longestS: number,
    private readonly speed = 1,
  ) {}

  start(onSample: (sample: LoggerSample) => void): void {
    this.stop();
    const probes = this.station.log(this.blow, this.longestS, this.places);
    let timeS = 0;
    this.timer = setInterval(() => {
      onSample({ timeS, readC: probes.map((p) => p.readC[timeS]) });
      if (++timeS > this.longestS) this.stop();
    }, 1000 / this.speed);
  }

  stop(): void {
    clearInterval(this.timer);
    this.timer = undefined;
  }
}
