import type { ProbePlace } from '../../board';
import {
  figureLabelOf,
  measurementId,
  measurementOfReference,
  placeOf,
  readingName,
  valueLabel,
  type Value,
} from '../../diagnose';
import { predictionInterval, type ReferenceTable } from '../../reference';
import type { Board } from '../../board';
import type { JobState } from '../log';

/** One point of a job held against good boards of its revision. */
export interface Compared {
  readonly id: string;
  readonly name: string;
  readonly place?: ProbePlace;
  /** What good boards read there. */
  readonly interval: string;
  readonly boards: number;
  /** Undefined where the job has not read it. */
  readonly value?: string;
  readonly within?: boolean;
}

/** Every point with two good boards or more: read and within, read and outside, not read yet. Outside ones first. */
export function compareWithReferences(board: Board, state: JobState, references: ReferenceTable): Compared[] {
  const newest = new Map(
    state.readings.filter((r) => r.absent.length === 0).map((r) => [measurementId(r.measurement), r.value]),
  );
  const all = Object.entries(references).flatMap(([id, stats]): Compared[] => {
    const m = measurementOfReference(id);
    const interval = predictionInterval(stats);
    if (!m || !interval) return [];
    const value = newest.get(id);
    return [
      {
        id,
        name: readingName(board, m),
        place: placeOf(board, m),
        interval: `${figureLabelOf(m, Math.max(0, interval.low))} to ${figureLabelOf(m, interval.high)}`,
        boards: stats.n,
        ...(value && { value: valueLabel(m, value), within: isWithin(value, interval) }),
      },
    ];
  });
  const rank = (c: Compared): number => (c.within === false ? 0 : c.within ? 1 : 2);
  return all.sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name, 'en', { numeric: true }));
}

const isWithin = (value: Value, { low, high }: { low: number; high: number }): boolean =>
  value.kind === 'figure' && !value.swings && value.value >= low && value.value <= high;
