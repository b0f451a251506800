import type { WorkHours } from '../../core/day';

/** Days that are planned ahead. */
const DAYS_AHEAD = 30;
const DAY_MS = 24 * 3_600_000;

/** The wall clock of a zone at a moment, as if it were universal time, ms. */
function wallMs(timeZone: string, at: number): number {
  const parts = new Intl.DateTimeFormat('en-CA', {
    ...{ timeZone, hourCycle: 'h23', year: 'numeric', month: '2-digit', day: '2-digit' },
    ...{ hour: '2-digit', minute: '2-digit', second: '2-digit' },
  }).formatToParts(at);
  const of = (type: string): number => Number(parts.find((p) => p.type === type)!.value);
  return Date.UTC(of('year'), of('month') - 1, of('day'), of('hour'), of('minute'), of('second'));
}

/** The moment at which a zone's wall clock shows something; where it never does, in the hour that is left out, the one after. */
function atWall(timeZone: string, wall: number): number {
  const first = wall - (wallMs(timeZone, wall) - wall);
  return wall - (wallMs(timeZone, first) - first);
}

/** From and to of every span in which nobody works, minutes from now, for the days ahead. */
export function closedMinutes(hours: WorkHours, timeZone: string, nowMs: number): [number, number][] {
  const midnight = Math.floor(wallMs(timeZone, nowMs) / DAY_MS) * DAY_MS;
  const open: [number, number][] = [];
  for (let d = 0; d < DAYS_AHEAD; d++) {
    const day = midnight + d * DAY_MS;
    const weekday = new Date(day).getUTCDay() || 7;
    if (!hours.days.includes(weekday)) continue;
    for (const [from, to] of hours.spans)
      open.push([atWall(timeZone, day + from * 60_000), atWall(timeZone, day + to * 60_000)]);
  }
  const minutes = (ms: number): number => Math.max(0, Math.round((ms - nowMs) / 60_000));
  const closed: [number, number][] = [];
  let from = 0;
  for (const [start, end] of open) {
    if (end <= nowMs) continue;
    if (minutes(start) > from) closed.push([from, minutes(start)]);
    from = minutes(end);
  }
  return closed;
}
