import { z } from 'zod';
import type { Board } from '../../board';

/** What every exercise's review says, whatever its kind. */
export interface ExerciseResult {
  /** How it ended, a word for the record. */
  readonly end: string;
  /** From 0 to 1. */
  readonly score: number;
  /** The one thing that would have saved most. */
  readonly lesson: string;
}

/** What every exercise's file begins with. */
export const exerciseHead = {
  format: z.literal(1),
  name: z.string().trim().min(1).max(80),
  /** The board whose parts and lines it is about. */
  boardId: z.string().min(1).max(80),
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31),
  grade: z.number().int().min(1).max(10),
};

interface Head {
  readonly kind: string;
  readonly format: 1;
  readonly name: string;
  readonly boardId: string;
  readonly seed: number;
  readonly grade: number;
}

/** A kind of exercise: its file, what a learner does, and how that is judged. */
export interface ExerciseKind<Spec extends Head, Done, Review extends ExerciseResult> {
  readonly kind: Spec['kind'];
  /** What it trains, for lists. */
  readonly title: string;
  readonly about: string;
  readonly spec: z.ZodType<Spec>;
  readonly done: z.ZodType<Done>;
  /** Exercises for the course on a board; none where the board has nothing for it. */
  readonly course: (board: Board) => readonly Spec[];
  readonly review: (board: Board, spec: Spec, done: Done) => Review;
}

export const defineExercise = <Spec extends Head, Done, Review extends ExerciseResult>(
  kind: ExerciseKind<Spec, Done, Review>,
): ExerciseKind<Spec, Done, Review> => kind;
