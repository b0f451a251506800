import { TZDate } from '@date-fns/tz';

/** Where a bench stands: its time zone (IANA), its language (BCP 47; empty: days as ISO 8601 writes them) and its money (ISO 4217, or none). */
export interface BenchPlace {
  readonly timeZone: string;
  readonly locale: string;
  readonly currency: string;
}

export const NOWHERE: BenchPlace = { timeZone: 'UTC', locale: '', currency: '' };

const isTaken = (make: () => unknown): boolean => {
  try {
    make();
    return true;
  } catch {
    return false;
  }
};

export const isTimeZone = (timeZone: string): boolean =>
  isTaken(() => new Intl.DateTimeFormat('en', { timeZone }).format(0));

export const isLocale = (locale: string): boolean => locale === '' || isTaken(() => new Intl.Locale(locale));

/**
 * The day of a moment where the bench stands.
 * @param iso ISO 8601; a text that is none is shown as it is.
 */
export function dayIn({ timeZone, locale }: BenchPlace, iso: string): string {
  const at = new Date(iso);
  if (Number.isNaN(at.getTime())) return iso;
  if (locale !== '') return new Intl.DateTimeFormat(locale, { timeZone, dateStyle: 'medium' }).format(at);
  const parts = new Intl.DateTimeFormat('en', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
  const part = Object.fromEntries(parts.formatToParts(at).map(({ type, value }) => [type, value]));
  return `${part.year}-${part.month}-${part.day}`;
}

/** The same as ISO 8601 writes it, `2026-12-01`, whatever the bench's language. */
export const isoDayIn = (place: BenchPlace, iso: string): string => dayIn({ ...place, locale: '' }, iso);

/**
 * The moment at which the bench's clocks show a day and an hour, ISO 8601 with the bench's offset, so that the day stands in it as
 * it was said. Where clocks leave the hour out, the one after.
 * @param day such as 2026-12-01. @param hour such as 17:00. @returns nothing for a day that is in no calendar.
 */
export function momentIn({ timeZone }: BenchPlace, day: string, hour: string): string | undefined {
  const [year, month, date] = day.split('-').map(Number);
  const [hours, minutes] = hour.split(':').map(Number);
  const at = new TZDate(year, month - 1, date, hours, minutes, timeZone);
  if (Number.isNaN(at.getTime()) || hours > 23 || minutes > 59) return undefined;
  const written = at.toISOString();
  return written.slice(0, 10) === day ? written : undefined;
}

/** An amount of the bench's money; a plain figure where no currency is set. */
export const moneyIn = ({ locale, currency }: BenchPlace, amount: number): string =>
  currency === ''
    ? amount.toFixed(2)
    : new Intl.NumberFormat(locale || 'en', { style: 'currency', currency }).format(amount);
