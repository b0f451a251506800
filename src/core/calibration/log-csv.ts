import { fail, ok, type Result } from '../result';

/** A logger's file: times from the start of the file, and what each probe shows; NaN where a reading is missing. */
export interface ThermoLog {
  readonly timesS: readonly number[];
  readonly probes: readonly { readonly name: string; readonly readC: readonly number[] }[];
  /** When the air came on, s: the first clear rise of any probe. */
  readonly airOnS: number;
}

/** A rise by so much over the first reading is no noise, K. Engineering estimate. */
const CLEAR_RISE_K = 3;
const LEAST_ROWS = 10;
/** No profile takes a day. */
const MOST_S = 86_400;

/**
 * A log of readings with its air-on moment. Rows without a time count for nothing; a missing reading is NaN and stays a gap.
 * Refused where there are too few readings or nothing warms.
 */
export function logOf(timesS: readonly number[], probes: ThermoLog['probes']): Result<ThermoLog> {
  const rows = timesS.map((_, i) => i).filter((i) => !Number.isNaN(timesS[i]));
  if (rows.length < LEAST_ROWS) return fail(`Expected at least ${LEAST_ROWS} readings; got ${rows.length}.`);
  const times = rows.map((i) => timesS[i]);
  const lengthS = times[times.length - 1] - times[0];
  if (lengthS > MOST_S) return fail(`Expected a log of at most a day; got ${Math.round(lengthS / 3600)} hours.`);
  const kept = probes.map(({ name, readC }) => ({ name, readC: rows.map((i) => readC[i]) }));
  const rises = kept
    .map(({ readC }) => {
      const start = readC.find((t) => !Number.isNaN(t)) ?? NaN;
      return readC.findIndex((t) => t > start + CLEAR_RISE_K);
    })
    .filter((i) => i > 0);
  if (rises.length === 0) return fail(`Expected a probe that warms by more than ${CLEAR_RISE_K} K; got none.`);
  return ok({ timesS: times, probes: kept, airOnS: Math.max(0, times[Math.min(...rises)] - RISE_LAG_S) });
}

/** A probe on the slug shows a clear rise so long after the air is on, s (lag of the outlet and the slug's own). Engineering estimate. */
const RISE_LAG_S = 2;

/** Readings at whole seconds from a moment on, by straight lines between the log's own that are there. */
export function wholeSeconds(log: ThermoLog, readC: readonly number[], fromS: number): number[] {
  const there = log.timesS.flatMap((atS, i) => (Number.isNaN(readC[i]) ? [] : [{ atS, readC: readC[i] }]));
  const out: number[] = [];
  if (there.length < 2) return out;
  for (let at = fromS, i = 0; at <= there[there.length - 1].atS + 1e-9; at++) {
    while (i + 2 < there.length && there[i + 1].atS < at) i++;
    const share = (at - there[i].atS) / (there[i + 1].atS - there[i].atS);
    out.push(there[i].readC + Math.min(1, Math.max(0, share)) * (there[i + 1].readC - there[i].readC));
  }
  return out;
}
