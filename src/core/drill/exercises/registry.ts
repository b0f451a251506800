import { z } from 'zod';
import type { Board } from '../../board';
import { fail, ok, type Result } from '../../result';
import { airExercise } from './air/air';
import { airDrillSchema } from './air/flight';
import type { ExerciseKind, ExerciseResult } from './definition';
import { eyesExercise, eyesSchema } from './eyes/eyes';
import { linesExercise, linesSchema } from './lines/lines';

/** Every kind of exercise beside finding faults; one line each. */
export const EXERCISES = { air: airExercise, eyes: eyesExercise, lines: linesExercise } as const;
export type ExerciseName = keyof typeof EXERCISES;

export const EXERCISE_NAMES = Object.keys(EXERCISES) as ExerciseName[];

export const exerciseSchema = z.discriminatedUnion('kind', [airDrillSchema, eyesSchema, linesSchema]);
export type ExerciseSpec = z.infer<typeof exerciseSchema>;
export type ExerciseReview = ReturnType<(typeof EXERCISES)[ExerciseName]['review']>;

/** Judges what was done; what does not fit the exercise is refused. */
export function reviewExercise(board: Board, spec: ExerciseSpec, done: unknown): Result<ExerciseReview> {
  switch (spec.kind) {
    case 'air':
      return reviewed(airExercise, board, spec, done);
    case 'eyes':
      return reviewed(eyesExercise, board, spec, done);
    case 'lines':
      return reviewed(linesExercise, board, spec, done);
  }
}

function reviewed<S extends ExerciseSpec, D, R extends ExerciseResult>(
  { done: doneSchema, review }: Pick<ExerciseKind<S, D, R>, 'done' | 'review'>,
  board: Board,
  spec: S,
  done: unknown,
): Result<R> {
  const parsed = doneSchema.safeParse(done);
  if (!parsed.success) return fail(`Expected what was done in this exercise; ${parsed.error.issues[0].message}.`);
  return ok(review(board, spec, parsed.data));
}

/** Exercises of one kind on the boards that there are; those that are the same on all boards, on the first. */
export function exerciseCourse(kind: ExerciseName, boards: readonly Board[]): ExerciseSpec[] {
  const on = kind === 'eyes' ? boards.slice(0, 1) : boards.slice(0, 2);
  return on.flatMap((board): readonly ExerciseSpec[] => EXERCISES[kind].course(board));
}
