import type { Random } from '../math';
import type { SegmentName } from './name';
import type { Trace } from './trace';

/** A segment that a simulated meter goes through. */
export interface WantedSegment {
  readonly name: SegmentName;
  readonly durationS: number;
  readonly volts: number;
  /** Current at the start and at the end. */
  readonly amps: readonly [number, number];
  /** For patterns that repeat. */
  readonly periodS?: number;
}

/** Noise of an ordinary meter in line, one spread: volts and amps. Engineering estimates. */
const NOISE = { volts: 0.015, amps: 0.006 } as const;

/** A trace through the wanted segments at 10 samples a second, noise included. */
export function simulateTrace(segments: readonly WantedSegment[], random: Random, sampleHz = 10): Trace {
  const times: number[] = [];
  const volts: number[] = [];
  const amps: number[] = [];
  let startS = 0;
  for (const s of segments) {
    const count = Math.round(s.durationS * sampleHz);
    for (let i = 0; i < count; i++) {
      const share = i / Math.max(1, count - 1);
      const off = s.periodS !== undefined && (i / sampleHz) % s.periodS > 0.6 * s.periodS;
      times.push(startS + i / sampleHz);
      volts.push(Math.max(0, (off ? 0.1 : s.volts) + NOISE.volts * normal(random)));
      amps.push(Math.max(0, (off ? 0 : s.amps[0] + share * (s.amps[1] - s.amps[0])) + NOISE.amps * normal(random)));
    }
    startS += count / sampleHz;
  }
  return { timesS: Float64Array.from(times), volts: Float64Array.from(volts), amps: Float64Array.from(amps) };
}

/** A normal draw by Box and Muller (1958). */
const normal = (random: Random): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
