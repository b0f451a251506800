import type { Board } from '../board';
import {
  Predictor,
  boardMeasurements,
  comparesWithGoodBoards,
  figureLabelOf,
  measurementId,
  meterReads,
  powerNeedOf,
  proposalOf,
  updateBelief,
  type Measurement,
  type TestContext,
} from '../diagnose';
import { predictionInterval, statsOf, type ReferenceReading } from '../reference';
import { fail, type Result } from '../result';
import { parseFigure } from '../units';

/** A point of the walk over a known-good board: what to read there, and what that tells of a board that just came in. */
export interface GoodPoint {
  readonly measurement: Measurement;
  /** Under this id its readings are kept. */
  readonly id: string;
  /** Read with the port plugged in. */
  readonly isPowered: boolean;
  /** What the test is worth where every figure is known, bits. */
  readonly bits: number;
}

/** Points that tell less are not worth a probe's walk, bits; and a walk ends after so many. Engineering estimates. */
const LEAST_BITS = 0.005;
const MOST_POINTS = 30;

/** A device that is open on the bench, and nothing done to it yet. */
const OPENED: TestContext = { access: 'out', absent: new Set(), replaced: [], taken: [] };

/**
 * The points whose readings on a good board tell most, those without power first, in each half the most telling first.
 * @param known the board with every figure known: what a test tells there is what knowing its figure is worth.
 */
export function goodWalk(known: Board): GoodPoint[] {
  const belief = updateBelief(Predictor.of(known), [], []);
  const points = boardMeasurements(known)
    .filter((m) => comparesWithGoodBoards(m) && meterReads(m) !== undefined)
    .map((measurement): GoodPoint => ({
      measurement,
      id: measurementId(measurement),
      isPowered: powerNeedOf(measurement).kind !== 'none',
      bits: proposalOf(belief, measurement, OPENED).bits,
    }));
  return points
    .filter((p) => p.bits >= LEAST_BITS)
    .sort((a, b) => b.bits - a.bits)
    .slice(0, MOST_POINTS)
    .sort((a, b) => Number(a.isPowered) - Number(b.isPowered) || b.bits - a.bits);
}

/** Units that may follow a figure. */
const UNIT_AFTER = { V: /\s*v(olts?)?$/i, Ω: /\s*(ohms?|Ω)$/i, drop: /\s*v(olts?)?$/i } as const;

/** Reads what a meter shows at a point: a figure in volts or ohms. An open line has none, and is refused with a sentence. */
export function parseGoodFigure({ measurement }: GoodPoint, text: string): Result<number> {
  const typed = text.trim();
  if (/^(ol|open)$/i.test(typed))
    return fail('An open line has no figure to compare with: leave this point out, or look whether the board is good.');
  const bare = typed.replace(UNIT_AFTER[meterReads(measurement) ?? 'V'], '').replace(/(\d)\s+(?=[a-zµ]$)/i, '$1');
  const figure = parseFigure(bare);
  return figure.ok && figure.value < 0 ? fail(`Expected a figure from 0 on; got ${typed}.`) : figure;
}

/** What a figure says beside what other good boards read at the same point. */
export interface GoodComparison {
  readonly label: string;
  /** True where it lies outside of what one more good board reads in 95 of 100 cases. */
  readonly isOdd: boolean;
}

/** Holds a figure against the readings of other good boards; two or more of them give an interval. */
export function comparedWithGood(
  { id, measurement }: GoodPoint,
  figure: number,
  others: readonly ReferenceReading[],
): GoodComparison {
  const label = figureLabelOf(measurement, figure);
  const values = others.filter((r) => r.point === id).map((r) => r.value);
  if (values.length === 0) return { label: `${label}, the first of this point`, isOdd: false };
  const span = predictionInterval(statsOf(values));
  if (!span)
    return { label: `${label}; another good board reads ${figureLabelOf(measurement, values[0])}`, isOdd: false };
  const [low, high] = [Math.max(0, span.low), span.high].map((v) => figureLabelOf(measurement, v));
  const isOdd = figure < span.low || figure > span.high;
  return {
    label: isOdd
      ? `${label}, but ${values.length} good boards read ${low} to ${high}: is this one good, and the probe where it should be?`
      : `${label}, as ${values.length} good boards read: ${low} to ${high}`,
    isOdd,
  };
}

const BOARD_SOURCE = /^good board (\d+)$/;

/** The good boards that were walked so far, in order, and what the next one is called. */
export function goodBoardsOf(readings: readonly ReferenceReading[]): {
  readonly walked: string[];
  readonly next: string;
} {
  const numbers = readings.flatMap((r) => BOARD_SOURCE.exec(r.source)?.slice(1).map(Number) ?? []);
  const walked = [...new Set(numbers)].sort((a, b) => a - b);
  const name = (n: number): string => `good board ${n}`;
  return { walked: walked.map(name), next: name((walked.at(-1) ?? 0) + 1) };
}
