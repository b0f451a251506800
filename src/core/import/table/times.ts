import type { Answers, ImportQuestion } from '../importer';
import { momentOf, type DayOrder } from './clock';
import { isIndexName, type Column } from './columns';
import type { TableLayout } from './layout';
import { spreadEvenly, typicalStep } from './spread';
import { unitOf } from './unit';

/** When each row was taken, in seconds since the first; NaN where a row does not say it. */
export interface RowTimes {
  readonly seconds: Float64Array;
  /** The columns that said it. */
  readonly from: readonly Column[];
  readonly questions: readonly ImportQuestion[];
  readonly notes: readonly string[];
  /** One sentence where the times make no sense. */
  readonly problem?: string;
}

const DAY_S = 86_400;
const HALF_DAY_S = DAY_S / 2;
export const TIME_UNITS = ['s', 'ms', 'µs', 'min'] as const;

/** Finds the columns that say when, and reads them. */
export function timesOf(layout: TableLayout, columns: readonly Column[], answers: Answers): RowTimes {
  const rows = layout.rows.length;
  const candidates = timeColumnsOf(columns, answers);
  if (candidates.length === 0) return withoutTimes(layout, columns, rows, answers);
  const read = candidates.map((c) => readColumns(c, layout, answers));
  const usable = read.filter((r) => r.problem === undefined);
  if (usable.length === 0) return read[0];
  const best = usable.reduce((a, b) => (fineness(b) > fineness(a) * 1.0001 ? b : a));
  return checkedAgainst(best, usable);
}

/** How many different moments there are, and whether questions are left: finer clocks and answered ones win. */
const fineness = (times: RowTimes): number => {
  const distinct = new Set(times.seconds).size;
  return distinct * (times.questions.length > 0 ? 0.5 : 1) * (times.notes.length > 0 ? 0.9 : 1);
};

/** Two clocks of one file tell the same length of time, or it is asked which is right. */
function checkedAgainst(best: RowTimes, all: readonly RowTimes[]): RowTimes {
  const length = (t: RowTimes): number => spanOf(t.seconds);
  const other = all.find(
    (t) =>
      t !== best && t.questions.length === 0 && Math.abs(length(t) - length(best)) > Math.max(2, 0.03 * length(best)),
  );
  if (!other || best.questions.length > 0) return best;
  const names = [best, other].map((t) => t.from.map((c) => c.name).join(' and '));
  return {
    ...best,
    questions: [
      {
        id: 'time',
        why: `Two columns tell the time and differ: ${names[0]} spans ${length(best).toFixed(1)} s, ${names[1]} ${length(other).toFixed(1)} s.`,
        choices: [best, other].map((t) => t.from[0].name),
      },
    ],
  };
}

function spanOf(seconds: Float64Array): number {
  let last = 0;
  for (const s of seconds) if (!Number.isNaN(s)) last = s;
  return last;
}

/** Groups of columns that may say when: days with their times, lengths of time, moments. */
function timeColumnsOf(columns: readonly Column[], answers: Answers): Column[][] {
  if (answers.time !== undefined) {
    const said = columns.find((c) => c.name === answers.time);
    if (said) return [[said]];
  }
  const timed = columns.filter(
    (c) => (c.kind === 'times' || (c.kind === 'figures' && c.quantity === 'time')) && !isIndexName(c.name),
  );
  const formOf = (c: Column): string | undefined => firstMoment(c)?.form;
  const day = timed.find((c) => c.kind === 'times' && formOf(c) === 'day');
  const clock = timed.find((c) => c.kind === 'times' && /^(clock|two)/.test(formOf(c) ?? ''));
  const groups = timed.filter((c) => c !== day && !(day && c === clock)).map((c) => [c]);
  if (day && clock) groups.unshift([day, clock]);
  else if (day) groups.push([day]);
  return groups;
}

const firstMoment = (column: Column): ReturnType<typeof momentOf> => {
  const cell = column.cells.find((text) => momentOf(text, 'day-month') ?? momentOf(text, 'month-day'));
  return cell === undefined ? undefined : (momentOf(cell, 'day-month') ?? momentOf(cell, 'month-day'));
};

/** Rate or interval from the lines above the header: `Interval: 0.1 s`, `Sample rate 10 Hz`. */
function intervalFrom(preamble: readonly string[]): number | undefined {
  for (const line of preamble) {
    const found =
      /(?:interval|period|sample[\s_-]*time|sampling[\s_-]*time|abtast\w*|step)[^0-9]{0,12}([\d.,]+)\s*([a-zµμ]+)/i.exec(
        line,
      );
    const unit = found ? unitOf(found[2]) : undefined;
    if (found && unit?.quantity === 'time') return Number(found[1].replace(',', '.')) * unit.scale;
    const rate = /(?:rate|frequency|frequenz)[^0-9]{0,12}([\d.,]+)\s*(k|M)?(?:Hz|S\/s|Sa\/s|sps)/i.exec(line);
    if (rate) return 1 / (Number(rate[1].replace(',', '.')) * (rate[2] === 'M' ? 1e6 : rate[2] ? 1e3 : 1));
  }
  return undefined;
}

function withoutTimes(layout: TableLayout, columns: readonly Column[], rows: number, answers: Answers): RowTimes {
  const said = answers.interval === undefined ? undefined : durationOf(answers.interval);
  const stated = said ?? intervalFrom(layout.preamble);
  const seconds = Float64Array.from({ length: rows }, (_, i) => i * (stated ?? NaN));
  if (stated !== undefined && stated > 0)
    return { seconds, from: [], questions: [], notes: [`No column of times: ${stated} s from row to row.`] };
  const rising = columns.find(
    (c) => c.kind === 'figures' && c.unit === undefined && !isIndexName(c.name) && isRising(c.values),
  );
  if (rising && answers.time === undefined)
    return {
      seconds,
      from: [],
      notes: [],
      questions: [
        {
          id: 'time',
          why: `No column is named as the time; ${rising.name} only grows.`,
          choices: [rising.name, 'none of them'],
        },
      ],
    };
  return {
    seconds,
    from: [],
    notes: [],
    questions: [
      {
        id: 'interval',
        why: 'The file has no column of times: how far apart are its rows, such as 0.1 s?',
        choices: [],
      },
    ],
  };
}

/** A length of time as typed: `0.1 s`, `100 ms`, `10 Hz`. */
function durationOf(text: string): number | undefined {
  const found = /^\s*([\d.,]+)\s*([a-zµμ]*)\s*$/i.exec(text);
  if (!found) return undefined;
  const figure = Number(found[1].replace(',', '.'));
  const unit = found[2] === '' ? unitOf('s') : unitOf(found[2]);
  if (!(figure > 0) || !unit) return undefined;
  if (unit.quantity === 'frequency') return 1 / (figure * unit.scale);
  return unit.quantity === 'time' ? figure * unit.scale : undefined;
}

const isRising = (values: Float64Array): boolean => {
  let last = -Infinity;
  let count = 0;
  for (const v of values) {
    if (Number.isNaN(v)) continue;
    if (v <= last) return false;
    last = v;
    count++;
  }
  return count > 2;
};

function readColumns(group: readonly Column[], layout: TableLayout, answers: Answers): RowTimes {
  const first = group[0];
  if (first.kind === 'figures') return figuresAsTimes(first, answers);
  return momentsAsTimes(group, layout, answers);
}

/** Figures: the unit by the header, else by their size. */
function figuresAsTimes(column: Column, answers: Answers): RowTimes {
  const { values, name } = column;
  const base: Pick<RowTimes, 'from'> = { from: [column] };
  if (column.unit?.quantity === 'time' || answers[`unit:${name}`] !== undefined)
    return settled(values.slice(), 1, base, [], resolutionOf(column));
  const step = typicalStep(values);
  const start = values.find((v) => !Number.isNaN(v)) ?? 0;
  const epoch = epochScale(start);
  if (epoch !== undefined) return settled(values.slice(), epoch.scale, base, [`${name}: ${epoch.label}.`], epoch.scale);
  if (column.decimals > 3 && start > 20_000 && start < 80_000 && step < 0.05)
    return settled(values.slice(), DAY_S, base, [`${name}: days, as spreadsheets count them.`], 1e-9);
  // Without a unit, steps up to 5 are seconds: nothing that is read here is sampled so finely that they are milliseconds.
  if (step >= LEAST_STEP_S && step <= MOST_STEP_S && isRound(step)) {
    return settled(values.slice(), 1, base, [`${name}: taken as seconds.`], resolutionOf(column));
  }
  return {
    seconds: values.map(() => NaN),
    ...base,
    notes: [],
    questions: [
      {
        id: `unit:${name}`,
        why: `${name} has no unit and goes on by ${Number(step.toPrecision(3))} from row to row.`,
        choices: TIME_UNITS,
      },
    ],
  };
}

/** Steps of whole milliseconds are seconds; 0.008333 is a part of a minute or an hour. */
const isRound = (step: number): boolean => Math.abs(step * 1e3 - Math.round(step * 1e3)) < 1e-3;

/** Steps between these are taken as seconds where no unit stands. Engineering estimate: loggers sample each ms to each 5 s. */
const LEAST_STEP_S = 0.002;
const MOST_STEP_S = 5;

const resolutionOf = (column: Column): number => 10 ** -column.decimals * (column.unit?.scale ?? 1);

/** Seconds, milliseconds, microseconds or nanoseconds since 1970, between the years 2001 and 2065. */
function epochScale(start: number): { scale: number; label: string } | undefined {
  for (const [scale, label] of [
    [1, 'seconds since 1970'],
    [1e-3, 'milliseconds since 1970'],
    [1e-6, 'microseconds since 1970'],
    [1e-9, 'nanoseconds since 1970'],
  ] as const)
    if (start * scale > 1e9 && start * scale < 3e9) return { scale, label };
  return undefined;
}

function momentsAsTimes(group: readonly Column[], layout: TableLayout, answers: Answers): RowTimes {
  const rows = layout.rows.length;
  const base: Pick<RowTimes, 'from'> = { from: group };
  const dayAndClock = group.length === 2;
  const cell = (i: number): string =>
    group
      .map((c) => c.cells[i].trim())
      .join(' ')
      .trim();
  const read = (order: DayOrder): { seconds: Float64Array; forms: Set<string>; two: [number, number][] } => {
    const seconds = new Float64Array(rows).fill(NaN);
    const forms = new Set<string>();
    const two: [number, number][] = [];
    for (let i = 0; i < rows; i++) {
      const moment = momentOf(cell(i), order);
      if (!moment) continue;
      seconds[i] = moment.seconds;
      forms.add(moment.form);
      if (moment.two) two.push([...moment.two]);
    }
    return { seconds, forms, two };
  };
  const dayMonth = read('day-month');
  const monthDay = read('month-day');
  const better = jumpsOf(monthDay.seconds) < jumpsOf(dayMonth.seconds) ? monthDay : dayMonth;
  const { seconds, forms, two } = better;
  if (forms.has('day') && forms.size === 1 && !dayAndClock && new Set(seconds).size < 3)
    return {
      seconds,
      ...base,
      questions: [],
      notes: [],
      problem: `Expected times; ${group[0].name} holds days without them.`,
    };
  if (two.length > 0 && !dayAndClock) return twoFigures(group, seconds, two, forms, answers, layout);
  const resolution = group.some((c) => c.cells.slice(0, 50).some((t) => /:\d{2}[.,:]\d+|T?\d{6}[.,]\d+/.test(t)))
    ? 1e-3
    : 1;
  const isDated = forms.has('day-time') || dayAndClock;
  if (isDated) return settled(seconds, 1, base, [], resolution);
  return overMidnight(seconds, forms.has('clock') && !forms.has('clock-12'), base, resolution);
}

/** `12:34`: minutes and seconds or hours and minutes, by what the header or the figures say; else it is asked. */
function twoFigures(
  group: readonly Column[],
  seconds: Float64Array,
  two: readonly (readonly [number, number])[],
  forms: ReadonlySet<string>,
  answers: Answers,
  layout: TableLayout,
): RowTimes {
  const [column] = group;
  const said = answers[`form:${column.name}`];
  const header = `${layout.header[column.index]} ${layout.units[column.index]}`;
  const minutesFirst =
    said === 'mm:ss' ||
    (said === undefined && (forms.has('clock') || /(?<!hh:)mm:ss/i.test(header) || two.some(([a]) => a > 23)));
  const hoursFirst = said === 'hh:mm' || (said === undefined && /hh:mm/i.test(header));
  if (minutesFirst) return overMidnight(seconds, false, { from: group }, 1);
  if (hoursFirst)
    return overMidnight(
      seconds.map((s) => s * 60),
      true,
      { from: group },
      60,
    );
  return {
    seconds: seconds.map(() => NaN),
    from: group,
    notes: [],
    questions: [
      {
        id: `form:${column.name}`,
        why: `${column.name} holds times such as ${column.cells[0]}: which are they?`,
        choices: ['mm:ss', 'hh:mm'],
      },
    ],
  };
}

/** Times that go back, or on by more than a day: the order of day and month with fewer of them is the right one. */
function jumpsOf(seconds: Float64Array): number {
  let jumps = 0;
  let last = NaN;
  for (const s of seconds) {
    if (Number.isNaN(s)) {
      jumps++;
      continue;
    }
    if (s < last || s > last + DAY_S) jumps++;
    last = s;
  }
  return jumps;
}

/** A clock without a day that falls back by about a day has gone over midnight; by about half a day, a clock of twelve hours. */
function overMidnight(
  seconds: Float64Array,
  twelve: boolean,
  base: Pick<RowTimes, 'from'>,
  resolution: number,
): RowTimes {
  const out = seconds.slice();
  let [added, last] = [0, NaN];
  const notes: string[] = [];
  for (let i = 0; i < out.length; i++) {
    if (Number.isNaN(out[i])) continue;
    const back = last - (out[i] + added);
    if (back > 0.75 * DAY_S) {
      added += DAY_S;
      notes.push('The clock goes over midnight.');
    } else if (twelve && back > 0.95 * HALF_DAY_S && back <= HALF_DAY_S) {
      added += HALF_DAY_S;
      notes.push('The clock counts twelve hours and begins anew.');
    }
    out[i] += added;
    last = out[i];
  }
  return settled(out, 1, base, notes, resolution);
}

/** Times beyond this are counted from 1970, not from the start of the record, s. */
const ABSOLUTE_S = 1e8;

/** Seconds from the first row, samples within one second spread evenly; a problem where time goes back. */
function settled(
  values: Float64Array,
  scale: number,
  base: Pick<RowTimes, 'from'>,
  notes: readonly string[],
  resolution: number,
): RowTimes {
  let start = NaN;
  const seconds = values;
  let last = NaN;
  let lacking = 0;
  for (let i = 0; i < seconds.length; i++) {
    if (Number.isNaN(seconds[i])) {
      lacking++;
      continue;
    }
    if (Number.isNaN(start)) start = seconds[i];
    // Seconds since 1970 leave a quarter of a microsecond in a double: what is finer than a microsecond there is noise.
    const since = (seconds[i] - start) * scale;
    seconds[i] = Math.abs(start * scale) > ABSOLUTE_S ? Math.round(since * 1e6) / 1e6 : since;
    if (seconds[i] < last - 1e-9)
      return {
        seconds,
        ...base,
        questions: [],
        notes: [],
        problem: `Expected times that go on; row ${i + 1} lies ${(last - seconds[i]).toFixed(3)} s before the one above it.`,
      };
    last = seconds[i];
  }
  if (Number.isNaN(start)) return { seconds, ...base, questions: [], notes: [], problem: 'Expected times; got none.' };
  if (lacking < seconds.length - 2 && seconds.every((s) => s === 0 || Number.isNaN(s)))
    return {
      seconds,
      ...base,
      questions: [],
      notes: [],
      problem: `Expected times that go on; all ${seconds.length - lacking} rows have the same.`,
    };
  const spread = spreadEvenly(seconds, resolution);
  const all = [...notes];
  if (spread) all.push('Several rows share one time: they are spread evenly over it.');
  if (lacking > 0) all.push(`${lacking} ${lacking === 1 ? 'row has' : 'rows have'} no time and count for nothing.`);
  return { seconds, ...base, questions: [], notes: all };
}
