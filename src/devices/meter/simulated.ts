import { seededRandom } from '../../core/math';
import { simulateTrace, type WantedSegment } from '../../core/trace';
import type { MeterDevice, MeterSample } from './meter';

/** What the simulated meter is plugged into. */
export const SCENES = ['charging', 'silent', 'flat pack', 'swinging', 'restarting', 'early load', 'dead'] as const;
export type Scene = (typeof SCENES)[number];

const SAMPLE_HZ = 10;

/** The segments of a scene at a port of this design level. Figures are common practice for a partly charged pack. */
export function sceneSegments(scene: Scene, designV: number): WantedSegment[] {
  const start: WantedSegment = { name: 'noTalk', durationS: 3, volts: 5.02, amps: [0.01, 0.01] };
  switch (scene) {
    case 'charging':
      return [
        start,
        { name: 'idle', durationS: 5, volts: designV, amps: [0.012, 0.012] },
        { name: 'ramp', durationS: 16, volts: designV, amps: [0.06, 0.62] },
        { name: 'hold', durationS: 36, volts: designV, amps: [0.62, 0.62] },
      ];
    case 'silent':
      return [{ ...start, durationS: 60 }];
    case 'flat pack':
      return [start, { name: 'preCharge', durationS: 57, volts: designV, amps: [0.1, 0.1] }];
    case 'swinging':
      return [{ name: 'swing', durationS: 60, volts: 5, amps: [0.3, 0.3], periodS: 2.4 }];
    case 'restarting':
      return [{ name: 'restart', durationS: 720, volts: designV, amps: [0.5, 0.5], periodS: 150 }];
    case 'early load':
      return [{ name: 'earlyLoad', durationS: 60, volts: 5.02, amps: [0.5, 0.5] }];
    case 'dead':
      return [{ name: 'nothing', durationS: 60, volts: 0, amps: [0, 0] }];
  }
}

/**
 * A meter that plays a scene, ten samples a second of its own time.
 * @param speed how many times faster than a real one it runs.
 */
export class SimulatedMeter implements MeterDevice {
  readonly name = 'simulated meter';
  private readonly samples: readonly MeterSample[];
  private timer?: ReturnType<typeof setInterval>;

  constructor(
    scene: Scene,
    designV: number,
    seed: number,
    private readonly speed = 1,
  ) {
    const { timesS, volts, amps } = simulateTrace(sceneSegments(scene, designV), seededRandom(seed), SAMPLE_HZ);
    this.samples = Array.from(timesS, (timeS, i) => ({ timeS, volts: volts[i], amps: amps[i] }));
  }

  start(onSample: (sample: MeterSample) => void): void {
    this.stop();
    let next = 0;
    this.timer = setInterval(() => {
      for (let k = 0; k < this.speed; k++) {
        if (next >= this.samples.length) return this.stop();
        onSample(this.samples[next++]);
      }
    }, 1000 / SAMPLE_HZ);
  }

  stop(): void {
    clearInterval(this.timer);
    this.timer = undefined;
  }
}
