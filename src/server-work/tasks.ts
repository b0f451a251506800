import { createHash } from 'node:crypto';
import type { Board } from '../core/board';
import { jobEnds, planDay, type DayPlan, type DayProblem } from '../core/day';
import { Predictor, warmUp } from '../core/diagnose';
import { parOf, reviewExercise, type Drill, type ExerciseReview, type ExerciseSpec } from '../core/drill';
import type { Result } from '../core/result';
import {
  answerOf,
  snapshotOf,
  viewJob,
  type BenchKnowledge,
  type JobEvent,
  type JobPurpose,
  type JobQuestion,
  type JobView,
} from '../core/job';

/** What takes too long for the thread that answers requests. Everything in and out is plain data. */

export interface ViewRequest {
  readonly board: Board;
  readonly number: number;
  readonly openedAt: string;
  readonly events: readonly JobEvent[];
  readonly knowledge: BenchKnowledge;
  readonly purpose: JobPurpose;
}

interface WhyRequest extends ViewRequest {
  readonly asked: JobQuestion;
}

/** A view without what whoever asks has already. */
export type ComputedView = Omit<JobView, 'board' | 'references'>;

interface ExerciseRequest {
  readonly board: Board;
  readonly spec: ExerciseSpec;
  /** What was done, as it came from the page. */
  readonly done: unknown;
}

interface DayRequest {
  readonly problem: DayProblem;
  /** The order of the plan before: jobs by their steps. */
  readonly steady?: readonly string[];
}

interface PlannedDay {
  readonly plan: DayPlan;
  readonly ends: ReturnType<typeof jobEnds>;
}

/** What it costs the program itself to solve a drill. */
interface Par {
  readonly minutes: number;
  readonly isSolved: boolean;
}

export const TASKS = {
  view({ board, number, openedAt, events, knowledge, purpose }: ViewRequest): ComputedView {
    const {
      board: _board,
      references: _references,
      ...view
    } = viewJob(...([number, openedAt, sameBoard(board), events, knowledge, purpose] as const));
    return view;
  },
  /** Weighs a test or work against what is proposed; gives the answer in words. */
  why({ asked, board, number, openedAt, events, knowledge, purpose }: WhyRequest): string {
    const job = snapshotOf(...([number, openedAt, sameBoard(board), events, knowledge, purpose] as const));
    return answerOf(job, asked);
  },
  par({ board, drill }: { readonly board: Board; readonly drill: Drill }): Par {
    const { minutes, isSolved } = parOf(Predictor.of(sameBoard(board)), drill);
    return { minutes, isSolved };
  },
  /** A day's plan, and when its jobs end. */
  day({ problem, steady }: DayRequest): PlannedDay {
    const plan = planDay(problem, { steady });
    return { plan, ends: jobEnds(problem, plan) };
  },
  /** Judges an exercise: a flight by the full solver. */
  exercise({ board, spec, done }: ExerciseRequest): Result<ExerciseReview> {
    return reviewExercise(sameBoard(board), spec, done);
  },
  /** Computes a board's tables ahead. */
  warm(board: Board): void {
    warmUp(sameBoard(board));
  },
};

export type TaskName = keyof typeof TASKS;
export type RequestOf<T extends TaskName> = Parameters<(typeof TASKS)[T]>[0];
export type AnswerOf<T extends TaskName> = ReturnType<(typeof TASKS)[T]>;

/** Boards whose tables are kept in each thread. */
const MOST_BOARDS = 40;
const boards = new Map<string, Board>();

/** One object for one state of a board, which comes as a copy each time: predictions are kept by object. */
function sameBoard(board: Board): Board {
  const name = createHash('sha256').update(JSON.stringify(board)).digest('hex');
  const kept = boards.get(name) ?? board;
  boards.delete(name);
  boards.set(name, kept);
  if (boards.size > MOST_BOARDS) boards.delete(boards.keys().next().value!);
  return kept;
}
