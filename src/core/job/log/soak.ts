import { formatSeconds } from '../../units';
import type { SoakBody } from './events/soak';

/** The device left on charge and watched. */
export interface Soak {
  readonly startedAt: string;
  readonly minutes: number;
  readonly restartsAt: readonly string[];
  readonly endedAt?: string;
}

export interface SoakView extends Soak {
  readonly state: 'running' | 'due' | 'held' | 'restarted' | 'short';
  readonly leftS: number;
  readonly label: string;
}

const MS = 1000;
const between = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / MS;

/** Intervals that differ by less than this share of their mean are a period. Engineering estimate. */
const PERIOD_SPREAD = 0.15;
/** Restarts every three minutes or so: a sensor that the system misses. Common practice, no source. */
const SENSOR_PERIOD_S: readonly [number, number] = [120, 300];

/** The time between restarts where they come at one period; at least three restarts. */
export function restartPeriodS({ restartsAt }: Pick<Soak, 'restartsAt'>): number | undefined {
  if (restartsAt.length < 3) return undefined;
  const gaps = restartsAt.slice(1).map((at, k) => between(restartsAt[k], at));
  const mean = gaps.reduce((sum, g) => sum + g, 0) / gaps.length;
  return gaps.every((g) => Math.abs(g - mean) <= PERIOD_SPREAD * mean) ? mean : undefined;
}

/** A soak as it stands at a time. @param now ISO 8601. */
export function viewSoak(soak: Soak, now: string): SoakView {
  const { startedAt, minutes, restartsAt, endedAt } = soak;
  const ranS = between(startedAt, endedAt ?? now);
  const leftS = Math.max(0, minutes * 60 - ranS);
  const told = (state: SoakView['state'], label: string): SoakView => ({ ...soak, state, leftS, label });
  if (restartsAt.length > 0) return told('restarted', restartWords(soak));
  if (endedAt) {
    return leftS > 0
      ? told('short', `ended after ${formatSeconds(ranS)} of ${minutes} min`)
      : told('held', `${minutes} min without a restart`);
  }
  return leftS > 0
    ? told('running', `${formatSeconds(leftS)} left of ${minutes} min`)
    : told('due', `${minutes} min are over: did it restart?`);
}

function restartWords(soak: Soak): string {
  const count = soak.restartsAt.length;
  const times = `${count} ${count === 1 ? 'restart' : 'restarts'}`;
  const period = restartPeriodS(soak);
  if (period === undefined) return times;
  const [from, to] = SENSOR_PERIOD_S;
  const why = period >= from && period <= to ? ': as when a sensor is missed' : '';
  return `${times}, every ${formatSeconds(period)}${why}`;
}

/** The running soak among those of a job. */
export const runningSoak = (soaks: readonly Soak[]): Soak | undefined => soaks.find((s) => !s.endedAt);

/** What an event does to the soaks. */
export function foldSoak(soaks: readonly Soak[], body: SoakBody, at: string): Soak[] {
  if (body.act === 'start') return [...soaks, { startedAt: at, minutes: body.minutes!, restartsAt: [] }];
  return soaks.map((s) => {
    if (s.endedAt) return s;
    return body.act === 'end' ? { ...s, endedAt: at } : { ...s, restartsAt: [...s.restartsAt, at] };
  });
}
