import { createEvents, type DateArray, type EventAttributes } from 'ics';
import type { SoakClock } from '../jobs/job-lists';
import type { DayLine } from './day';

/** A moment in UTC as the calendar package takes it: year, month, day, hour, minute. */
function utc(at: string): DateArray {
  const d = new Date(at);
  return [d.getUTCFullYear(), d.getUTCMonth() + 1, d.getUTCDate(), d.getUTCHours(), d.getUTCMinutes()];
}

/** How long an entry stands in the calendar; it is a moment. */
const MOMENT = { minutes: 15 } as const;
const MINUTE_MS = 60_000;

/** Promises to owners, deliveries and ends of what runs by itself, as iCalendar. Source: RFC 5545. */
export function calendarOf(lines: readonly DayLine[], soaks: readonly SoakClock[]): string {
  const job = (number: number): string => `Job ${String(number).padStart(4, '0')}`;
  const entry = (uid: string, at: string, title: string, description: string): EventAttributes => ({
    ...{ uid: `${uid}@unisolda`, title, description, start: utc(at), duration: MOMENT },
    ...{ startInputType: 'utc', startOutputType: 'utc' },
  });
  const promises = lines.flatMap(({ number, device, promisedAt, late, next }) => {
    if (promisedAt === undefined) return [];
    const title = `${job(number)} promised, ${device}${late ? ': will be late' : ''}`;
    return [entry(`promise-${number}`, promisedAt, title, `Next: ${next}`)];
  });
  const ends = soaks.map(({ job: number, startedAt, minutes }) =>
    entry(
      `soak-${number}`,
      new Date(Date.parse(startedAt) + minutes * MINUTE_MS).toISOString(),
      `${job(number)}: the soak ends`,
      'Look at it, and enter how it went.',
    ),
  );
  const deliveries = lines.flatMap(({ number, awaits }) =>
    awaits
      ? [
          entry(
            `delivery-${number}`,
            awaits.byAt,
            `${job(number)}: ${awaits.what} expected`,
            'Enter “awaits here” when it is.',
          ),
        ]
      : [],
  );
  const made = createEvents([...promises, ...deliveries, ...ends], { productId: 'unisolda', calName: 'Unisolda' });
  if (!made.value) throw made.error ?? new Error('The calendar could not be written.');
  return made.value;
}
