import type { PartRef } from '../../identities';
import {
  entryStem,
  interpretReading,
  measurementId,
  readingName,
  valueLabel,
  type JobPractice,
  type Practice,
  type Predictor,
} from '../../diagnose';
import { takenOnBoardAsIs, type JobState, type PriorClosure, type TakenReading } from '../log';
import { mendedLabels, workedOn } from '../closeout/mended';
import { proveJob } from '../proof/proof';

/** One reading of the last proof, and the same place now. */
export interface ThenAndNow {
  readonly name: string;
  readonly then: string;
  /** Undefined while it has not been read again. */
  readonly now?: string;
  /** Good then and bad now, or the other way round. */
  readonly hasTurned: boolean;
  /** What to type to read it again. */
  readonly stem: string;
}

/** What a job that came back knows of one time before. */
export interface PriorClosureView {
  readonly closedAt: string;
  readonly reopenedAt: string;
  readonly daysGood: number;
  readonly outcome: string;
  readonly symptom: string;
  readonly cause: string;
  readonly reason?: string;
  readonly mended: readonly string[];
  /** What was proven at the time, in words; and what was left open. */
  readonly proven: readonly string[];
  readonly unproven: readonly string[];
  readonly changes: readonly ThenAndNow[];
  /** Chance that what was mended then is at fault again. */
  readonly againChance: number;
}

const DAY_MS = 86_400_000;

/** The bench's practice, and for a job that came back what was worked on before. */
export function jobPractice({ priorClosures }: JobState, practice: Practice): JobPractice {
  const again = [...new Set(priorClosures.flatMap((p) => p.state.replaced))];
  return again.length > 0 ? { ...practice, again } : practice;
}

/** What every earlier closing of a job knew, held against what is known now; the latest first. */
export function pastOf(
  predictor: Predictor,
  state: JobState,
  suspects: readonly { readonly ref: PartRef; readonly p: number }[],
): PriorClosureView[] {
  return state.priorClosures.map((before) => pastView(predictor, before, state, suspects)).reverse();
}

function pastView(
  predictor: Predictor,
  { state: then, reopenedAt }: PriorClosure,
  now: JobState,
  suspects: readonly { readonly ref: PartRef; readonly p: number }[],
): PriorClosureView {
  const { board } = predictor;
  const closed = then.closed!;
  const { gates } = proveJob(predictor, then);
  const refs = new Set(then.replaced.map((key) => workedOn(board, key)));
  return {
    closedAt: closed.at,
    reopenedAt,
    daysGood: Math.max(0, Math.round((Date.parse(reopenedAt) - Date.parse(closed.at)) / DAY_MS)),
    outcome: closed.outcome,
    symptom: then.story?.symptom ?? '',
    cause: closed.cause,
    reason: closed.reason,
    mended: mendedLabels(board, then.replaced),
    proven: gates.filter((g) => g.holds).map((g) => g.label),
    unproven: gates.filter((g) => !g.holds).map((g) => `${g.label}: ${g.missing}`),
    changes: changesSince(predictor, then, now),
    againChance: Math.min(
      1,
      suspects.filter((s) => refs.has(s.ref)).reduce((sum, s) => sum + s.p, 0),
    ),
  };
}

/** The readings of the last proof against the newest of the same place: turned ones first, then those that read as they did, then what is to be read again. */
function changesSince(predictor: Predictor, then: PriorClosure['state'], now: JobState): ThenAndNow[] {
  const { board } = predictor;
  const newest = (readings: readonly TakenReading[]): Map<string, TakenReading> =>
    new Map(readings.map((r) => [measurementId(r.measurement), r]));
  const proven = newest(then.readings.filter((r) => takenOnBoardAsIs(then, r)));
  const again = newest(now.readings);
  const changes = [...proven].map(([id, before]): ThenAndNow => {
    const after = again.get(id);
    return {
      name: readingName(board, before.measurement),
      then: valueLabel(before.measurement, before.value),
      now: after && valueLabel(after.measurement, after.value),
      hasTurned: after !== undefined && stateOf(predictor, before) !== stateOf(predictor, after),
      stem: entryStem(board, before.measurement),
    };
  });
  const rank = ({ hasTurned, now: value }: ThenAndNow): number => (hasTurned ? 0 : value === undefined ? 2 : 1);
  return changes.sort((a, b) => rank(a) - rank(b));
}

const stateOf = (predictor: Predictor, { measurement, value, absent }: TakenReading): string =>
  interpretReading(predictor, measurement, value, new Set(absent)).state;
