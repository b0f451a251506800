import type { Board } from '../board';
import { measurementId, readingName, valueLabel } from '../diagnose';
import { benchMinutes, foldJob, workedOn, type JobEvent, type JobFields } from '../job';
import { supplyId } from '../stock';

/** One closing of a job, as the records count it: a job that came back has one for each time. */
export interface LedgerJob {
  /** The closings of a job, from 0. */
  readonly closing: number;
  /** ISO 8601. */
  readonly closedAt: string;
  readonly outcome: string;
  /** It had been closed before, and came back. */
  readonly isComeback: boolean;
  /** Days until it came back after this closing; undefined where it has not. */
  readonly daysGood?: number;
  /** What was replaced, rewritten or mended, in the board's names; empty where nothing was. */
  readonly causes: readonly string[];
  /** Who closed it. */
  readonly person: string;
  /** The chip that went on: its type and where it came from. */
  readonly source?: string;
  /** The station, by its id, that the plan kept last is made for. */
  readonly station?: string;
  readonly minutes: number;
  /** What the owner paid, where it was entered. */
  readonly price?: number;
  /** What the owner was told before the work, and the chance of success told with it. */
  readonly quoted?: number;
  readonly successTold?: number;
  readonly promisedAt?: string;
  readonly readings: readonly LedgerReading[];
}

/** A reading as the records keep it. */
export interface LedgerReading {
  readonly point: string;
  readonly name: string;
  /** What was read in the units of its point: Infinity for an open input, undefined for what is no figure. */
  readonly value?: number;
  readonly words: string;
  /** On the faulty board before anything was worked on, or on a board that was proven good. */
  readonly phase: 'fault' | 'good';
}

/** What the closings of a job say; empty while it was never closed. Undone and corrected entries count as they stand. */
export function ledgerOf(board: Board, events: readonly JobEvent[]): LedgerJob[] {
  const state = foldJob(events);
  const lives: JobFields[] = [...state.priorClosures.map((p) => p.state), ...(state.closed ? [state] : [])];
  const closes = state.live.filter((e) => e.body.kind === 'close');
  const reopens = state.live.filter((e) => e.body.kind === 'reopen');
  const reopened = reopens.map((e) => e.at);
  return lives.map((life, closing): LedgerJob => {
    const close = closes[closing];
    const begins = closing === 0 ? '' : reopened[closing - 1];
    const own = events.filter((e) => e.at >= begins && e.at <= close.at);
    const { price, minutes, outcome } = life.closed!;
    const quote = own.findLast((e) => e.body.kind === 'quote')?.body;
    const promise = own.findLast((e) => e.body.kind === 'promise')?.body;
    return {
      ...{ closing, closedAt: close.at, outcome, isComeback: closing > 0, person: close.actor },
      daysGood: closing in reopened ? days(close.at, reopened[closing]) : undefined,
      causes: outcome === 'repaired' ? [...new Set(life.replaced.map((key) => workedOn(board, key)))] : [],
      source: life.route && `${life.route.typeId}, ${supplyId(life.route.supply)}`,
      station: life.heatPlan?.stationId,
      minutes: minutes ?? benchMinutes(own),
      ...{ price, quoted: quote?.kind === 'quote' ? quote.price : undefined },
      successTold: quote?.kind === 'quote' ? quote.successChance : undefined,
      promisedAt: promise?.kind === 'promise' ? (promise.byAt ?? undefined) : undefined,
      readings: readingsOf(board, life, closing === 0 ? 0 : reopens[closing - 1].seq),
    };
  });
}

const DAY_MS = 86_400_000;
const days = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / DAY_MS;

/**
 * What was read before any work, and after the last work of a job that was repaired: what lies between is of neither board.
 * @param begins the number that readings before the first work of this closing carry.
 */
function readingsOf(board: Board, { readings, work, closed }: JobFields, begins: number): LedgerReading[] {
  return readings.flatMap((r): LedgerReading[] => {
    const isGood = closed?.outcome === 'repaired' && work > begins && r.work === work;
    if (r.work !== begins && !isGood) return [];
    const { measurement, value } = r;
    return [
      {
        point: measurementId(measurement),
        name: readingName(board, measurement),
        value: figureOf(value),
        words: valueLabel(measurement, value),
        phase: isGood ? 'good' : 'fault',
      },
    ];
  });
}

/** The figure that a reading is compared by; of a pair the current, which is what a USB meter tells faults by. */
function figureOf(value: JobFields['readings'][number]['value']): number | undefined {
  switch (value.kind) {
    case 'figure':
      return value.value;
    case 'pair':
      return value.amps;
    case 'open':
      return Infinity;
    case 'beep':
    case 'pass':
    case 'fail':
    case 'choice':
      return undefined;
  }
}
