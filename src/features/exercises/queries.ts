import 'server-only';
import * as exercises from '@/application/drills/exercises';
import * as memory from '@/application/drills/memory';
import { database } from '@/db/client';

export type { ExerciseView } from '@/application/drills/exercises';
export type { MemoryRound } from '@/application/drills/memory';
export type { ExerciseList } from '@/application/drills/drills';

export const loadExercise = async (id: number) =>
  Number.isInteger(id) ? exercises.loadExercise(await database(), id) : undefined;

export const loadMemoryRound = async () => memory.loadMemoryRound(await database());
