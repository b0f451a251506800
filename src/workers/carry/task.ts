import type { Board } from '../../core/board';
import type { Carry } from '../../core/sketch';
import { defineWorkerTask } from '../task';

/** Weighs how far a board's file carries. */
export const carryTask = defineWorkerTask<Board, Carry>({
  worker: () => new Worker(new URL('./carry.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The worker that weighs what is known ended unexpectedly.',
});
