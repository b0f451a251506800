import type { PartRef } from '../identities';
import type { Board, ProbePlace, Shield } from '../board';
import { predictionInterval, type ReferenceTable } from '../reference';
import { orList } from '../command-line';
import { fail, ok, type Result } from '../result';
import { openingMinutes, type Access } from './access';
import { SOUND } from './faults';
import type { Interpretation, Near, PowerNeed, Sound } from './measurements/definition';
import { bad, good } from './measurements/interpretation';
import { MEASUREMENT_KINDS, definitionOf, type Measurement } from './measurements/registry';
import type { OutcomeCentre } from './measurements/scale';
import type { Predictor } from './predictor';
import type { Reading } from './reading';
import type { Value } from './value';

/** What the program asks of any measurement. The answers are the kinds' own: see `measurements/`. */

/** One point, one id. */
export const measurementId = (m: Measurement): string => definitionOf(m).id(m);

/** Every test that a board offers at any time; what only a belief makes worth proposing is left out. */
export const boardMeasurements = (board: Board): Measurement[] => MEASUREMENT_KINDS.flatMap((k) => k.offered(board));

/** Where the probe goes, nearest to `near` where there is a choice. */
export const placeOf = (board: Board, m: Measurement, near?: Near): ProbePlace | undefined =>
  definitionOf(m).place(board, m, near);

/** What the test is called, as an instruction: `TP7 to ground, resistance`. */
export const measurementTitle = (board: Board, m: Measurement, near?: Near): string =>
  definitionOf(m).title(board, m, near);

/** Where a reading was taken, short: `C14`, `VBUS, A way`. */
export const readingName = (board: Board, m: Measurement): string => definitionOf(m).name(board, m);

/** The entry that answers the test, up to its value, as typed in the entry line. */
export const entryStem = (board: Board, m: Measurement, near?: Near): string => definitionOf(m).stem(board, m, near);

/** A value in words, with the unit its test has. */
export const valueLabel = (m: Measurement, value: Value): string => definitionOf(m).scale.label(value);

/** An outcome class in words: `near 1.6 Ω`, `open`, `fails`. */
export function outcomeLabel(m: Measurement, outcome: OutcomeCentre): string {
  const { scale } = definitionOf(m);
  if (outcome.unlike) return 'something else';
  return outcome.answer ? scale.label(outcome.answer) : scale.outcomeLabel(outcome);
}

export const accessFor = (m: Measurement): Access => definitionOf(m).access(m);

/** The shield that has to come off for a test; none where the test can be had without. */
export const shieldFor = (board: Board, m: Measurement): Shield | undefined => definitionOf(m).shield(board, m);

/** What a meter on a line reads it with; undefined for what no meter reads alone. */
export const meterReads = (m: Measurement): 'V' | 'Ω' | 'drop' | undefined => definitionOf(m).meterReads;

export const powerNeedOf = (m: Measurement): PowerNeed => definitionOf(m).power(m);

/** True where it belongs to the Outside stage. */
export const isOutsideTest = (m: Measurement): boolean => definitionOf(m).outside;

/** True where readings compare from board to board. */
export const comparesWithGoodBoards = (m: Measurement): boolean => definitionOf(m).goodBoards !== undefined;

/** What has to be minded where the test is taken. */
export const testCaution = (m: Measurement): string | undefined => definitionOf(m).caution;

const NONE: ReadonlySet<string> = new Set();

/** Minutes for one test from the present access state, opening and the shield over it included. */
export function testMinutes(board: Board, m: Measurement, access: Access, bare: ReadonlySet<string> = NONE): number {
  const shield = shieldFor(board, m);
  const shieldMinutes = shield && !bare.has(shield.id) ? shield.minutes : 0;
  return openingMinutes(access, accessFor(m)) + shieldMinutes + definitionOf(m).minutes(board, m);
}

/** Checks that a reading speaks of this board: its names exist and its value is of the kind its test gives. */
export function checkReading(
  board: Board,
  { measurement: m, value }: Pick<Reading, 'measurement' | 'value'>,
): Result<true> {
  const kind = definitionOf(m);
  const { values } = kind.scale;
  if (!values.includes(value.kind)) return fail(`Expected ${orList(values)} (${kind.label}); got ${value.kind}.`);
  if (value.kind === 'figure' && (value.ripplePpV ?? value.swings) !== undefined && m.kind !== 'railVoltage')
    return fail(`Expected ripple and swings of a voltage only; got them of another reading (${kind.label}).`);
  const misfit = kind.misfit(board, m);
  if (misfit !== undefined) return fail(misfit);
  const choices = kind.choices?.(board, m);
  if (value.kind === 'choice' && choices && !choices.includes(value.choice))
    return fail(`Expected ${orList(choices)} (${kind.label}); got "${value.choice}".`);
  return ok(true);
}

/**
 * Says what a reading means on this board in its present state, compared with a sound one, and with good boards of its
 * revision where they were read.
 */
export function interpretReading(
  predictor: Predictor,
  m: Measurement,
  value: Value,
  absent: ReadonlySet<PartRef>,
  references: ReferenceTable = {},
): Interpretation {
  const kind = definitionOf(m);
  const goodBoards = references[kind.id(m)];
  const sound = (): Sound => {
    const prediction = predictor.predict(m, SOUND, absent, NONE);
    if (prediction.kind !== 'values') return { mean: 0, sd: 0 };
    const [{ means, sds }] = prediction.alternatives;
    return { mean: means[0], sd: sds[0] };
  };
  const own = kind.interpret({ model: predictor, absent, references, goodBoards, sound }, m, value);
  return kind.goodBoards?.decide ? againstGoodBoards(own, m, value, absent, goodBoards) : own;
}

/**
 * Where good boards of this revision were read, their prediction interval decides in place of the board file: what lies in it
 * is normal, what lies outside is not. With a part off the board the references do not speak of it.
 */
function againstGoodBoards(
  own: Interpretation,
  m: Measurement,
  value: Value,
  absent: ReadonlySet<PartRef>,
  stats: ReferenceTable[string] | undefined,
): Interpretation {
  if (value.kind !== 'figure' || absent.size > 0 || !stats) return own;
  const interval = predictionInterval(stats);
  if (!interval) return own;
  // Good boards were read where they were steady.
  const isUnsteady = value.swings === true || value.ripplePpV !== undefined;
  if (isUnsteady && own.state === 'bad') return own;
  if (value.value >= interval.low && value.value <= interval.high) return good(`as ${stats.n} good boards read`);
  // A clear fault keeps its own words.
  if (own.state === 'bad') return own;
  const { figureLabel } = definitionOf(m).scale;
  const range = `${figureLabel(Math.max(0, interval.low))} to ${figureLabel(interval.high)}`;
  return bad(`not as ${stats.n} good boards: ${range}`);
}

/** The measurement that a point of the references names; none where it is not one that compares from board to board. */
export function measurementOfReference(pointId: string): Measurement | undefined {
  const [, first, second] = pointId.split(':');
  for (const kind of MEASUREMENT_KINDS) {
    if (!kind.goodBoards || first === undefined) continue;
    const m = kind.goodBoards.fromId(first, second ?? '');
    if (kind.id(m) === pointId) return m;
  }
  return undefined;
}

/** Why a reference reading does not speak of this board: no such point, or none that compares from board to board. */
export function referenceProblem(board: Board, { point, value }: { point: string; value: number }): string | undefined {
  const measurement = measurementOfReference(point);
  if (!measurement)
    return `Expected a point that is read on good boards, such as ohm:${Object.keys(board.nets)[0] ?? 'VIN'}; got "${point}".`;
  const checked = checkReading(board, { measurement, value: { kind: 'figure', value } });
  return checked.ok ? undefined : checked.problems[0].message;
}

/** A figure of a measurement in its unit, for intervals of good boards. */
export const figureLabelOf = (m: Measurement, figure: number): string => definitionOf(m).scale.figureLabel(figure);
