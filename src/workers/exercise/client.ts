import { runInWorker, type Started } from '../run';
import type { ExerciseReply, ExerciseRequest } from './protocol';

/** A worker that has answered waits for the next question: a flight asks at every turn of the dial. */
let idle: Worker | undefined;

/** Asks a worker for what an exercise is played with. */
export function askExercise(request: ExerciseRequest): Started<ExerciseReply> {
  const worker = idle ?? new Worker(new URL('./exercise.worker.ts', import.meta.url), { type: 'module' });
  idle = undefined;
  return runInWorker<ExerciseRequest, ExerciseReply>(
    worker,
    request,
    () => undefined,
    'The exercise’s worker ended unexpectedly. Load the page again; nothing was counted.',
    (free) => {
      if (idle) free.terminate();
      else idle = free;
    },
  );
}
