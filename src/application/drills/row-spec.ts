import { drillSchema, exerciseSchema, type Drill, type ExerciseSpec } from '../../core/drill';
import type { DrillRow } from '../../db/drills';

/** What a row is about: faults to be found, or an exercise, which names its kind. */
export function specOf({ spec }: Pick<DrillRow, 'spec'>): Drill | ExerciseSpec {
  const stored: unknown = JSON.parse(spec);
  return typeof stored === 'object' && stored !== null && 'kind' in stored
    ? exerciseSchema.parse(stored)
    : drillSchema.parse(stored);
}

export const isExercise = (spec: Drill | ExerciseSpec): spec is ExerciseSpec => 'kind' in spec;
