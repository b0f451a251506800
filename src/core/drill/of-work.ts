import {
  curedFaults,
  updateBelief,
  type HistoryFlag,
  type JobPractice,
  type Predictor,
  type Reading,
} from '../diagnose';
import type { Drill } from './definition';

/** What was read and mended on a real board, without a word of its owner. */
export interface WorkDone {
  readonly number: number;
  readonly readings: readonly Reading[];
  readonly history: readonly HistoryFlag[];
  /** What was mended, by key. */
  readonly replaced: readonly string[];
  readonly practice: JobPractice;
}

/** A drill hides so many faults at most. */
const MOST_FAULTS = 3;
/** How hard a drill from the bench is called: nobody has graded it. Engineering estimate. */
const GRADE = 5;

/**
 * A drill with the faults that a job most likely had: what was mended, as its readings explain it.
 * @returns undefined where nothing that was mended is likely to have been at fault.
 */
export function drillOfWork(predictor: Predictor, work: WorkDone): Drill | undefined {
  const { number, readings, history, replaced, practice } = work;
  const belief = updateBelief(predictor, readings, history, practice, replaced);
  const hidden = curedFaults(belief, { replaced }).slice(0, MOST_FAULTS);
  if (hidden.length === 0) return undefined;
  return {
    format: 1,
    name: `From the bench, job ${number}`,
    boardId: predictor.board.id,
    seed: number,
    faults: hidden.length as 1 | 2 | 3,
    hidden: hidden.map((s) => s.fault.id),
    misleading: false,
    grade: GRADE,
  };
}
