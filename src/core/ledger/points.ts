import type { JobNumber } from '../identities';

/** A kept reading with what became of its job. */
export interface PointReading {
  readonly job: JobNumber;
  /** Infinity for an open input; undefined for what is no figure. */
  readonly value?: number;
  readonly words: string;
  readonly phase: 'fault' | 'good';
  /** What was mended in the end; empty where nothing was. */
  readonly cause: string;
}

/** What a point read on good boards, or on boards with one cause. */
export interface PointGroup {
  /** `good boards`, the cause, or `not mended`. */
  readonly name: string;
  readonly count: number;
  /** Figures in rising order, open inputs last; empty where the point has none. */
  readonly values: readonly number[];
  /** What was read where it is no figure, the commonest first. */
  readonly words: readonly (readonly [words: string, count: number])[];
}

export const GOOD = 'good boards';
const NOT_MENDED = 'not mended';

/** Readings at one point, put together by what was at fault; good boards first, then the commonest cause. */
export function pointGroups(readings: readonly PointReading[]): PointGroup[] {
  const groups = new Map<string, PointReading[]>();
  for (const r of readings) {
    const name = r.phase === 'good' ? GOOD : r.cause || NOT_MENDED;
    const group = groups.get(name);
    if (group) group.push(r);
    else groups.set(name, [r]);
  }
  return [...groups]
    .map(([name, group]): PointGroup => ({
      ...{ name, count: group.length },
      values: group.flatMap((r) => r.value ?? []).sort((a, b) => a - b),
      words: counts(group.filter((r) => r.value === undefined).map((r) => r.words)),
    }))
    .sort((a, b) => Number(b.name === GOOD) - Number(a.name === GOOD) || b.count - a.count);
}

function counts(words: readonly string[]): (readonly [string, number])[] {
  const seen = new Map<string, number>();
  for (const w of words) seen.set(w, (seen.get(w) ?? 0) + 1);
  return [...seen].sort((a, b) => b[1] - a[1]);
}

/** Jobs whose reading lies near a value, by what they turned out to be. */
export interface NearValue {
  readonly jobs: number;
  readonly causes: readonly (readonly [cause: string, jobs: number])[];
}

/**
 * "0.14 A here: 12 of 14 were U4": the faulty jobs whose reading at a point lies near a value.
 * @param share how near, as a share of the value; an open input is near an open input alone.
 */
export function jobsNear(readings: readonly PointReading[], value: number, share = 0.15): NearValue {
  const near = readings.filter(
    (r) =>
      r.phase === 'fault' &&
      r.value !== undefined &&
      (r.value === value || (Number.isFinite(value) && Math.abs(r.value - value) <= share * Math.abs(value))),
  );
  // A job that read the point twice counts once.
  const byJob = new Map(near.map((r) => [r.job, r.cause || NOT_MENDED]));
  return { jobs: byJob.size, causes: counts([...byJob.values()]) };
}
