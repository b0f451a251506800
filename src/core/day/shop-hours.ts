import { z } from 'zod';
import { fail, ok, type Result } from '../result';

const DAY_MIN = 24 * 60;
const MOST_SPANS = 6;

type Span = [fromMin: number, toMin: number];

const minuteOfDay = z.number().int().min(0).max(DAY_MIN);

/** When the shop works, by its own clock: days of the week (1 Monday) and spans in minutes of the day, in order. */
export const workHoursSchema = z.object({
  days: z.array(z.number().int().min(1).max(7)).min(1).max(7),
  spans: z
    .array(z.tuple([minuteOfDay, minuteOfDay]))
    .min(1)
    .max(MOST_SPANS)
    .refine(areInOrder, 'expected spans one after the other, such as 9:00 to 13:00, 13:30 to 18:00'),
});
export type WorkHours = z.infer<typeof workHoursSchema>;

function areInOrder(spans: readonly Span[]): boolean {
  return spans.every(([from, to], i) => from < to && (i === 0 || spans[i - 1][1] <= from));
}

/** Where the shop has not said: Monday to Friday, nine to six with half an hour at one. Engineering estimate. */
export const USUAL_HOURS: WorkHours = {
  days: [1, 2, 3, 4, 5],
  spans: [
    [9 * 60, 13 * 60],
    [13 * 60 + 30, 18 * 60],
  ],
};

/** `9`, `9:30`, `09.30`, twice, with anything between that is no figure. */
const SPAN = /^(\d{1,2})(?:[:.](\d{2}))?\s*(?:to|until|-|–|—)\s*(\d{1,2})(?:[:.](\d{2}))?$/i;

/** Spans as a person types them, such as `9:00 to 13:00, 13:30 to 18:00`; in minutes of the day. */
export function spansFromText(text: string): Result<Span[]> {
  const spans: Span[] = [];
  for (const part of text.split(/[,;]/).map((p) => p.trim())) {
    const read = SPAN.exec(part);
    const [fromH, fromM, toH, toM] = (read?.slice(1) ?? []).map((v) => Number(v ?? 0));
    const span: Span = [fromH * 60 + fromM, toH * 60 + toM];
    if (!read || fromM > 59 || toM > 59 || span[1] > DAY_MIN)
      return fail(`Expected hours such as 9:00 to 13:00, 13:30 to 18:00; got "${part}".`);
    spans.push(span);
  }
  if (spans.length > MOST_SPANS) return fail(`Expected at most ${MOST_SPANS} spans a day; got ${spans.length}.`);
  if (!areInOrder(spans)) return fail(`Expected spans that end after they begin, one after the other; got "${text}".`);
  return ok(spans);
}

const clock = (min: number): string => `${Math.floor(min / 60)}:${String(min % 60).padStart(2, '0')}`;

export const spansText = (spans: readonly Span[]): string =>
  spans.map(([from, to]) => `${clock(from)} to ${clock(to)}`).join(', ');

const DAY_NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

/** The days of the week by their numbers, Monday first. */
export const WEEK: readonly (readonly [number, string])[] = DAY_NAMES.map((name, i) => [i + 1, name]);

/** `Monday to Friday, 9:00 to 13:00, 13:30 to 18:00`. */
export function hoursLabel({ days, spans }: WorkHours): string {
  const sorted = [...new Set(days)].sort((a, b) => a - b);
  const isRun = sorted.length > 2 && sorted.at(-1)! - sorted[0] === sorted.length - 1;
  const names = (isRun ? [sorted[0], sorted.at(-1)!] : sorted).map((d) => DAY_NAMES[d - 1]);
  return `${names.join(isRun ? ' to ' : ', ')}, ${spansText(spans)}`;
}
