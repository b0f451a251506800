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

/** An amount of the bench's money; a plain figure where no currency is set. */
export const moneyIn = ({ locale, currency }: BenchPlace, amount: number): string =>
  currency === ''
    ? amount.toFixed(2)
    : new Intl.NumberFormat(locale || 'en', { style: 'currency', currency }).format(amount);
