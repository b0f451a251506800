import { TZDate } from '@date-fns/tz';
import type { WorkHours } from '../../core/day';

/** Days that are planned ahead. */
const DAYS_AHEAD = 30;

/** From and to of every span in which nobody works, minutes from now, for the days ahead. */
export function closedMinutes(hours: WorkHours, timeZone: string, nowMs: number): [number, number][] {
  const now = new TZDate(nowMs, timeZone);
  const open: [number, number][] = [];
  for (let d = 0; d < DAYS_AHEAD; d++) {
    const at = (minute: number): TZDate =>
      new TZDate(now.getFullYear(), now.getMonth(), now.getDate() + d, 0, minute, timeZone);
    const weekday = at(0).getDay() || 7;
    if (!hours.days.includes(weekday)) continue;
    for (const [from, to] of hours.spans) open.push([at(from).getTime(), at(to).getTime()]);
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
