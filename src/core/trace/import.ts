import Papa from 'papaparse';
import { fail, ok, type Result } from '../result';
import type { Trace } from './trace';

/** What a column of a meter's file holds, and by how much its figures are multiplied to get seconds, volts or amps. */
export interface ColumnChoice {
  readonly time: number | null;
  readonly volts: number;
  readonly amps: number;
  readonly timeScale: number;
  readonly voltScale: number;
  readonly ampScale: number;
  /** Time between samples, for files without a time column. */
  readonly stepS?: number;
}

export interface MeterImport {
  readonly trace: Trace;
  readonly choice: ColumnChoice;
  /** The header as found, for showing what was taken as what. */
  readonly columns: readonly string[];
  /** What was guessed rather than read: to be shown, and changed where it is wrong. */
  readonly doubts: readonly string[];
}

/** Most samples that are kept: an hour at 10 a second is 36,000. */
const MOST_SAMPLES = 200_000;
/** The share of rows that may be unreadable before the file is refused. Engineering estimate. */
const MOST_BROKEN = 0.05;
/** Beyond these no port is: the figures are then in milli-units. */
const MOST_VOLTS = 60;
const MOST_AMPS = 10;
/** Time between samples where a file names none, s. */
const USUAL_STEP_S = 0.1;

type Role = 'time' | 'volts' | 'amps';

const NAMES: Record<Role, RegExp> = {
  time: /^(time|zeit|elapsed|sec|date|[ts](?![a-z]))/i,
  volts: /^(volt|spannung|vbus|bus|[vu](?![a-z]))/i,
  amps: /^(amp|current|strom|ibus|[ai](?![a-z]))/i,
};

/**
 * Reads the CSV of any USB meter: separator, header, units, decimal comma and time base are found by content.
 * @param given a choice made by the user, where the guess was wrong.
 */
export function importMeterCsv(text: string, given?: Partial<ColumnChoice>): Result<MeterImport> {
  if (text.trim() === '') return fail('Expected a meter’s CSV file; got an empty file.');
  const parsed = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true });
  const rows = parsed.data;
  const first = rows.findIndex((row) => row.filter((cell) => isFigure(cell)).length >= 2);
  if (first < 0) return fail(`Expected rows with volts and amps; got none in ${rows.length} rows.`);
  const header = first > 0 ? rows[first - 1] : rows[first].map((_, i) => `column ${i + 1}`);
  const body = rows.slice(first, first + MOST_SAMPLES);
  const guess = guessColumns(header, body, first > 0);
  if (!guess.ok) return guess;
  const choice = { ...guess.value.choice, ...given };
  const trace = traceOf(body, choice, first);
  return trace.ok
    ? ok({ trace: trace.value, choice, columns: header, doubts: given ? [] : guess.value.doubts })
    : trace;
}

const clean = (cell: string): string => cell.trim().replace(',', '.');
const isFigure = (cell: string): boolean =>
  /^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(clean(cell)) || /\d:\d\d/.test(cell);

function guessColumns(
  header: readonly string[],
  body: readonly string[][],
  named: boolean,
): Result<{ choice: ColumnChoice; doubts: string[] }> {
  const width = Math.max(...body.slice(0, 20).map((row) => row.length));
  if (width < 2) return fail(`Expected two columns or more, volts and amps; got ${width}.`);
  const doubts: string[] = [];
  const found = named ? byName(header) : {};
  const free = Array.from({ length: width }, (_, i) => i).filter((i) => !Object.values(found).includes(i));
  const rising = free.find((i) => isRising(body, i));
  const time = found.time ?? (width > 2 ? (rising ?? null) : null);
  const rest = free.filter((i) => i !== time);
  const volts = found.volts ?? rest.shift();
  const amps = found.amps ?? rest.filter((i) => i !== volts).shift();
  if (volts === undefined || amps === undefined)
    return fail(`Expected a column of volts and one of amps; got ${header.join(', ')}.`);
  if (found.volts === undefined || found.amps === undefined)
    doubts.push(`Taken as volts: ${header[volts]}; as amps: ${header[amps]}.`);
  const scaleOf = (column: number, most: number): number =>
    unitScale(header[column]) ?? (median(body, column) > most ? 1e-3 : 1);
  if (time === null) doubts.push(`No time column: taken as ${USUAL_STEP_S} s a sample.`);
  const choice = {
    time,
    volts,
    amps,
    timeScale: time === null ? 1 : (timeScale(header[time]) ?? guessTimeScale(body, time)),
    voltScale: scaleOf(volts, MOST_VOLTS),
    ampScale: scaleOf(amps, MOST_AMPS),
    stepS: USUAL_STEP_S,
  };
  return ok({ choice, doubts });
}

function byName(header: readonly string[]): Partial<Record<Role, number>> {
  const found: Partial<Record<Role, number>> = {};
  header.forEach((name, i) => {
    const role = (Object.keys(NAMES) as Role[]).find((r) => NAMES[r].test(name.trim()));
    if (role && found[role] === undefined) found[role] = i;
  });
  return found;
}

/** Multiplier of a unit in a header such as `Current (mA)`. */
const unitScale = (name: string): number | undefined =>
  /\bm[av]\b/i.test(name) ? 1e-3 : /\b[av]\b|volt|amp/i.test(name) ? 1 : undefined;
const timeScale = (name: string): number | undefined =>
  /\b(ms|milli)/i.test(name)
    ? 1e-3
    : /\b(us|µs|micro)/i.test(name)
      ? 1e-6
      : /\bmin/i.test(name)
        ? 60
        : /\b(s|sec|seconds)\b/i.test(name)
          ? 1
          : undefined;

const figure = (cell: string | undefined): number => {
  if (cell === undefined) return NaN;
  const clock = /(\d+):(\d\d)(?::(\d\d(?:[.,]\d+)?))?\s*$/.exec(cell.trim());
  if (clock)
    return clock[3] === undefined
      ? Number(clock[1]) * 60 + Number(clock[2])
      : Number(clock[1]) * 3600 + Number(clock[2]) * 60 + Number(clean(clock[3]));
  return cell.trim() === '' ? NaN : Number(clean(cell));
};

const column = (body: readonly string[][], i: number): number[] =>
  body
    .slice(0, 500)
    .map((row) => figure(row[i]))
    .filter((v) => !Number.isNaN(v));
const isRising = (body: readonly string[][], i: number): boolean => {
  const values = column(body, i);
  return values.length > 2 && values.every((v, k) => k === 0 || v > values[k - 1]);
};
const median = (body: readonly string[][], i: number): number =>
  column(body, i).sort((a, b) => a - b)[Math.floor(column(body, i).length / 2)] ?? 0;

/** Samples are 1 ms to 10 s apart; steps above that are milliseconds. */
function guessTimeScale(body: readonly string[][], i: number): number {
  const values = column(body, i);
  const steps = values
    .slice(1)
    .map((v, k) => v - values[k])
    .sort((a, b) => a - b);
  return (steps[Math.floor(steps.length / 2)] ?? 1) > 10 ? 1e-3 : 1;
}

function traceOf(body: readonly string[][], choice: ColumnChoice, firstRow: number): Result<Trace> {
  const times: number[] = [];
  const volts: number[] = [];
  const amps: number[] = [];
  let broken = 0;
  let firstBroken = '';
  body.forEach((row, i) => {
    const t = choice.time === null ? i * (choice.stepS ?? USUAL_STEP_S) : figure(row[choice.time]) * choice.timeScale;
    const v = figure(row[choice.volts]) * choice.voltScale;
    const a = figure(row[choice.amps]) * choice.ampScale;
    const follows = times.length === 0 || t > times[times.length - 1];
    if (Number.isNaN(t + v + a) || !follows) {
      broken++;
      firstBroken ||= `row ${firstRow + i + 1}: "${row.join(', ').slice(0, 60)}"`;
      return;
    }
    times.push(t);
    volts.push(v);
    amps.push(Math.abs(a));
  });
  if (broken > MOST_BROKEN * body.length)
    return fail(
      `Expected time, volts and amps in every row, time going on; ${broken} of ${body.length} rows are not so, first ${firstBroken}.`,
    );
  if (times.length < 3) return fail(`Expected three samples or more; got ${times.length}.`);
  const tooHigh = Math.max(...volts.slice(0, 5000));
  if (tooHigh > MOST_VOLTS)
    return fail(
      `Expected a port voltage up to ${MOST_VOLTS} V; got ${tooHigh.toFixed(1)}: name the column and its unit.`,
    );
  const start = times[0];
  return ok({
    timesS: Float64Array.from(times, (t) => t - start),
    volts: Float64Array.from(volts),
    amps: Float64Array.from(amps),
  });
}
