/** A clock with a fraction, with or without a day before it and a zone behind it. */
const CLOCK = /(?:^|[T\s])(\d{1,2}):(\d{2}):(\d{2})[.,](\d+)/;
const DAY_S = 86_400;

/**
 * Seconds of a clock within its day, NaN where the cell holds none. The day is left out: seconds since 1970 leave a quarter of a
 * microsecond in a double, and half a bit of a conversation is 1.7 µs.
 */
export function clockSeconds(cell: string): number {
  const found = CLOCK.exec(cell);
  if (!found) return NaN;
  const [, hours, minutes, seconds, fraction] = found;
  return Number(hours) * 3600 + Number(minutes) * 60 + Number(`${seconds}.${fraction}`);
}

/** The same moment counted on where the clock has gone over midnight since the one before it. */
export const overMidnight = (seconds: number, last: number): number =>
  last === -Infinity ? seconds : seconds + DAY_S * Math.max(0, Math.round((last - seconds) / DAY_S));
