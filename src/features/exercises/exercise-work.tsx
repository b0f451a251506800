'use client';

import { AirWork } from './air-work';
import { ExerciseReview } from './exercise-review';
import { EyesWork } from './eyes-work';
import { LinesWork } from './lines-work';
import type { ExerciseView } from './queries';

/** An exercise that goes on, or what came of it. */
export function ExerciseWork({ exercise }: { exercise: ExerciseView }) {
  const { spec, review } = exercise;
  if (review) return <ExerciseReview exercise={exercise} review={review} />;
  switch (spec.kind) {
    case 'air':
      return <AirWork exercise={exercise} drill={spec} />;
    case 'eyes':
      return <EyesWork exercise={exercise} drill={spec} />;
    case 'lines':
      return <LinesWork exercise={exercise} drill={spec} />;
  }
}
