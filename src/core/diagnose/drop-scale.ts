import { partByRef } from '../board';
import { median } from '../math';
import type { Measurement } from './measurements/registry';
import type { Predictor } from './predictor';
import type { Reading } from './reading';
import type { Value } from './value';

/** Drops of one session rise and fall together with the board's temperature and the meter: the scale is taken from so many. */
const FROM_DROPS = 4;
/** Drops further from what a sound board reads, as a share, say something else. */
const NEAR = 0.12;

const KINDS: ReadonlySet<string> = new Set(['diodeDrop', 'contactDrop', 'jointDrop']);

/**
 * By what factor all drops of a job differ from the board file's, 1 where too few are near enough to tell: the median of
 * what was read over what a sound board reads. Temperature moves a junction by some −2 mV/K (Shockley; textbook figure).
 */
export function dropScaleOf(predictor: Predictor, readings: readonly Reading[]): number {
  const ratios = readings.flatMap(({ measurement: m, value }): number[] => {
    if (value.kind !== 'figure' || !KINDS.has(m.kind)) return [];
    const net = netOf(predictor, m);
    const normal = net === undefined ? undefined : predictor.board.nets[net]?.diodeV;
    if (normal === undefined) return [];
    const ratio = value.value / normal;
    return Math.abs(ratio - 1) <= NEAR ? [ratio] : [];
  });
  return ratios.length < FROM_DROPS ? 1 : median(ratios);
}

function netOf({ board }: Predictor, m: Measurement): string | undefined {
  if (m.kind === 'diodeDrop') return m.net;
  if (m.kind === 'contactDrop') return partByRef(board, m.port)?.pins[m.pin];
  return m.kind === 'jointDrop' ? partByRef(board, m.ref)?.pins[m.pin] : undefined;
}

/** A drop as it would read on the scale of the board file; any other reading as it is. */
export const scaled = ({ measurement, value }: Reading, scale: number): Value =>
  scale !== 1 && value.kind === 'figure' && KINDS.has(measurement.kind)
    ? { ...value, value: value.value / scale }
    : value;
