/** A moment as it stands in a cell: a time of day, a length of time, or a day with its time. */
export interface Moment {
  /** Seconds since the beginning of its day, or of the first day that the calendar counts. */
  readonly seconds: number;
  readonly form: ClockForm;
}

/** How a cell writes a moment. `two` is `12:34`, of which only the column tells whether minutes or hours come first. */
export type ClockForm = 'day-time' | 'clock' | 'clock-12' | 'two' | 'day';

const MONTHS: Readonly<Record<string, number>> = Object.fromEntries(
  ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'].map((m, i) => [m, i]),
);
const GERMAN_MONTHS: Readonly<Record<string, number>> = { mär: 2, mrz: 2, mai: 4, okt: 9, dez: 11 };
const WEEKDAY = /^(?:mon|tue|wed|thu|fri|sat|sun)[a-z]*,?\s+/i;

/** The order of day and month in a date of figures only. */
export type DayOrder = 'day-month' | 'month-day';

const CLOCK = /^(-?\d{1,4}):(\d{1,2})(?::(\d{1,2})(?:[.,:](\d{1,9}))?|[.,](\d{1,9}))?\s*([ap]\.?m\.?)?$/i;
const ZONE = /\s*(z|utc|gmt|[-+]\d{2}:?\d{2}|[-+]\d{2})$/i;

interface Clock {
  readonly seconds: number;
  readonly form: ClockForm;
  /** The two figures of `12:34`, for a column that knows which they are. */
  readonly two?: readonly [number, number];
}

function clockOf(text: string): Clock | undefined {
  const found = CLOCK.exec(text.trim());
  if (!found) return undefined;
  const [, a, b, c, fraction, fractionOfTwo, half] = found;
  const [first, second] = [Number(a), Number(b)];
  if (second > 59 && c !== undefined) return undefined;
  if (half) {
    if (first < 1 || first > 12) return undefined;
    const hour = (first % 12) + (/^p/i.test(half) ? 12 : 0);
    return { seconds: hour * 3600 + second * 60 + secondsOf(c, fraction), form: 'clock-12' };
  }
  if (c !== undefined) {
    if (Number(c) > 60) return undefined;
    return { seconds: first * 3600 + second * 60 + secondsOf(c, fraction), form: 'clock' };
  }
  // With a fraction the second figure is seconds.
  if (fractionOfTwo !== undefined) return { seconds: first * 60 + secondsOf(b, fractionOfTwo), form: 'clock' };
  return { seconds: first * 60 + second, form: 'two', two: [first, second] };
}

const secondsOf = (whole: string | undefined, fraction: string | undefined): number =>
  Number(`${whole ?? 0}.${fraction ?? 0}`);

const NUMERIC_DAY = /^(\d{1,4})([-/.])(\d{1,2})\2(\d{1,4})\.?$/;
const WORD_DAY = /^(\d{1,2})[-\s.]+([a-zäé]{3,9})\.?[-\s,]+(\d{2,4})$/i;
const WORD_DAY_FIRST = /^([a-z]{3,9})\.?\s+(\d{1,2}),?\s+(\d{2,4})$/i;

const fullYear = (year: number): number => (year < 100 ? 2000 + year : year);

/** A day in seconds since 1970, universal time; undefined where the text is none. */
function dayOf(text: string, order: DayOrder): number | undefined {
  const clean = text.trim().replace(WEEKDAY, '');
  const compact = /^(\d{4})(\d{2})(\d{2})$/.exec(clean);
  if (compact) return utcDay(Number(compact[1]), Number(compact[2]) - 1, Number(compact[3]));
  const figures = NUMERIC_DAY.exec(clean);
  if (figures) {
    const [a, b, c] = [Number(figures[1]), Number(figures[3]), Number(figures[4])];
    if (figures[1].length === 4) return utcDay(a, b - 1, c);
    if (figures[4].length === 3) return undefined;
    const dayFirst = figures[2] === '.' || order === 'day-month';
    return dayFirst ? utcDay(fullYear(c), b - 1, a) : utcDay(fullYear(c), a - 1, b);
  }
  const words = WORD_DAY.exec(clean);
  const first = WORD_DAY_FIRST.exec(clean);
  const [day, name, year] = words ? [words[1], words[2], words[3]] : first ? [first[2], first[1], first[3]] : [];
  if (name === undefined) return undefined;
  const key = name.toLowerCase().slice(0, 3);
  const month = MONTHS[key] ?? GERMAN_MONTHS[key];
  return month === undefined ? undefined : utcDay(fullYear(Number(year)), month, Number(day));
}

function utcDay(year: number, month: number, day: number): number | undefined {
  if (month < 0 || month > 11 || day < 1 || day > 31 || year < 1970 || year > 2100) return undefined;
  const ms = Date.UTC(year, month, day);
  return new Date(ms).getUTCMonth() === month ? ms / 1000 : undefined;
}

/**
 * Reads a moment: ISO 8601 with or without a zone, days in the usual orders with a time behind them or before, `hh:mm:ss`
 * with fractions or AM and PM, `mm:ss.s`. Undefined for anything else, plain figures included.
 */
export function momentOf(
  text: string,
  order: DayOrder,
): (Moment & { readonly two?: readonly [number, number] }) | undefined {
  const clean = text.trim();
  if (!/[:\-/.\s]/.test(clean) || clean.length > 48 || clean.length < 4) return undefined;
  const clock = clockOf(clean);
  if (clock) return clock;
  return dayTimeOf(clean, order);
}

function dayTimeOf(clean: string, order: DayOrder): Moment | undefined {
  const asctime = /^[a-z]{3},?\s+([a-z]{3})\s+(\d{1,2})\s+(\S+)\s+(\d{4})$/i.exec(clean);
  if (asctime) return dayTimeOf(`${asctime[2]} ${asctime[1]} ${asctime[4]} ${asctime[3]}`, order);
  const iso = /^(\d{4}-?\d{2}-?\d{2})[T ]+(\d{2})(\d{2})(\d{2}(?:[.,]\d+)?)?(z|[-+]\d{2}:?\d{0,2})?$/i.exec(clean);
  if (iso && !clean.includes(':', 11)) {
    const day = dayOf(iso[1], order);
    const time = clockOf(`${iso[2]}:${iso[3]}:${iso[4] ?? '00'}`);
    if (day !== undefined && time) return { seconds: day + time.seconds - offsetOf(iso[5]), form: 'day-time' };
  }
  const at = clean.search(/[T\s,]+-?\d{1,2}:\d{2}/i);
  if (at > 0) {
    const day = dayOf(clean.slice(0, at), order);
    let rest = clean.slice(at).replace(/^[T\s,]+/i, '');
    let offset = 0;
    const zone = ZONE.exec(rest);
    if (zone && zone.index >= 4) {
      offset = offsetOf(zone[1]);
      rest = rest.slice(0, zone.index);
    }
    const time = clockOf(rest);
    if (day === undefined || !time || time.seconds < 0) return undefined;
    // Behind a day, two figures are hours and minutes.
    const seconds = time.two ? time.two[0] * 3600 + time.two[1] * 60 : time.seconds;
    return { seconds: day + seconds - offset, form: 'day-time' };
  }
  const timeFirst = /^(\d{1,2}:\d{2}:\d{2}(?:[.,]\d+)?(?:\s*[ap]m)?)[\s,]+(.+)$/i.exec(clean);
  if (timeFirst) {
    const [time, day] = [clockOf(timeFirst[1]), dayOf(timeFirst[2], order)];
    return time && day !== undefined ? { seconds: day + time.seconds, form: 'day-time' } : undefined;
  }
  const day = dayOf(clean, order);
  return day === undefined ? undefined : { seconds: day, form: 'day' };
}

function offsetOf(zone: string | undefined): number {
  const found = /^([-+])(\d{2}):?(\d{2})?$/.exec(zone ?? '');
  if (!found) return 0;
  return (found[1] === '-' ? -1 : 1) * (Number(found[2]) * 3600 + Number(found[3] ?? 0) * 60);
}

export const looksLikeTime = (text: string): boolean =>
  momentOf(text, 'day-month') !== undefined || momentOf(text, 'month-day') !== undefined;
