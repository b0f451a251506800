import type { ProbePlace } from '../board';
import { measurementId, placeOf, readingName, type Measurement, type Value } from '../diagnose';
import { predictionInterval, type ReferenceTable } from '../reference';
import { formatDrop, formatOhm, formatVolt } from '../units';
import type { Board } from '../board';
import type { JobState } from './fold';

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
    const m = measurementOf(id);
    const interval = predictionInterval(stats);
    if (!m || !interval) return [];
    const show = m.kind === 'ohm' ? formatOhm : m.kind === 'volts' ? formatVolt : formatDrop;
    const value = newest.get(id);
    return [
      {
        id,
        name: readingName(board, m),
        place: placeOf(board, m),
        interval: `${show(Math.max(0, interval.low))} to ${show(interval.high)}`,
        boards: stats.n,
        ...(value && { value: valueText(value, show), within: isWithin(value, interval) }),
      },
    ];
  });
  const rank = (c: Compared): number => (c.within === false ? 0 : c.within ? 1 : 2);
  return all.sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name, 'en', { numeric: true }));
}

/** The measurement that a point of a reference names; none where it is not one that compares from board to board. */
function measurementOf(id: string): Measurement | undefined {
  const [kind, first, second] = id.split(':');
  if (kind === 'ohm' || kind === 'drop') return { kind, net: first };
  if (kind === 'volts') return { kind, rail: first };
  if (kind === 'joint') return { kind, ref: first, pin: second };
  return kind === 'pin' ? { kind, port: first, pin: second } : undefined;
}

const isWithin = (value: Value, { low, high }: { low: number; high: number }): boolean =>
  value.kind === 'figure' && !value.swings && value.value >= low && value.value <= high;

const valueText = (value: Value, show: (figure: number) => string): string =>
  value.kind === 'figure' ? show(value.value) : value.kind === 'open' ? 'open' : 'beeps';
