import Papa from 'papaparse';
import { fail, ok, type Result } from '../result';

/** A logger's file: times from the start of the file, and what each probe shows. */
export interface ThermoLog {
  readonly timesS: readonly number[];
  readonly probes: readonly { readonly name: string; readonly readC: readonly number[] }[];
  /** When the air came on, s: the first clear rise of any probe. */
  readonly airOnS: number;
}

/** A rise by so much over the first reading is no noise, K. Engineering estimate. */
const CLEAR_RISE_K = 3;
/** Readings of thermocouples over a hot-air bench, °C. */
const LEAST_C = -20;
const MOST_C = 600;
const LEAST_ROWS = 10;

/**
 * Reads a thermocouple logger's CSV: the column that only grows is the time (seconds, or milliseconds where the steps are
 * large), every other column of numbers in range is a probe.
 */
export function importThermoCsv(text: string): Result<ThermoLog> {
  // With semicolons or tabs a comma is a decimal one.
  const delimiter = [';', '\t'].find((d) => text.includes(d)) ?? ',';
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true, delimiter });
  const first = data.findIndex((row) => row.length >= 2 && row.every((cell) => isNumber(cell)));
  if (first < 0) return fail('Expected a CSV with a time and at least one probe, all numbers; got no such row.');
  const names = first > 0 ? data[first - 1] : [];
  const rows = data.slice(first);
  const bad = rows.findIndex((row) => row.length !== rows[0].length || !row.every((cell) => isNumber(cell)));
  if (bad >= 0)
    return fail(
      `Expected ${rows[0].length} numbers in every row; got "${rows[bad].join(',')}" in row ${first + bad + 1}.`,
    );
  if (rows.length < LEAST_ROWS) return fail(`Expected at least ${LEAST_ROWS} readings; got ${rows.length}.`);
  const columns = rows[0].map((_, c) => rows.map((row) => numberOf(row[c])));
  const time = columns.findIndex((list) => list.every((v, i) => i === 0 || v > list[i - 1]));
  if (time < 0) return fail('Expected one column whose numbers only grow, the time; got none.');
  const start = columns[time][0];
  const typical = (columns[time][rows.length - 1] - start) / (rows.length - 1);
  const perSecond = typical > 20 ? 1000 : 1;
  const timesS = columns[time].map((t) => (t - start) / perSecond);
  const probes = columns.flatMap((readC, c) =>
    c !== time && readC.every((t) => t > LEAST_C && t < MOST_C)
      ? [{ name: names[c]?.trim() || `probe ${c}`, readC }]
      : [],
  );
  if (probes.length === 0)
    return fail(`Expected readings from ${LEAST_C} to ${MOST_C} °C in some column; got none beside the time.`);
  const rises = probes.map(({ readC }) => readC.findIndex((t) => t > readC[0] + CLEAR_RISE_K)).filter((i) => i > 0);
  if (rises.length === 0) return fail(`Expected a probe that warms by more than ${CLEAR_RISE_K} K; got none.`);
  return ok({ timesS, probes, airOnS: Math.max(0, timesS[Math.min(...rises)] - RISE_LAG_S) });
}

/** A probe on the slug shows a clear rise so long after the air is on, s (lag of the outlet and the slug's own). Engineering estimate. */
const RISE_LAG_S = 2;

const numberOf = (cell: string): number => Number(cell.trim().replace(/^(-?\d+),(\d+)$/, '$1.$2'));
const isNumber = (cell: string): boolean => cell.trim() !== '' && Number.isFinite(numberOf(cell));

/** Readings at whole seconds from a moment on, by straight lines between the log's own. */
export function wholeSeconds({ timesS }: ThermoLog, readC: readonly number[], fromS: number): number[] {
  const out: number[] = [];
  for (let at = fromS, i = 0; at <= timesS[timesS.length - 1] + 1e-9; at++) {
    while (i + 2 < timesS.length && timesS[i + 1] < at) i++;
    const share = (at - timesS[i]) / (timesS[i + 1] - timesS[i]);
    out.push(readC[i] + Math.min(1, Math.max(0, share)) * (readC[i + 1] - readC[i]));
  }
  return out;
}
