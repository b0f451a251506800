import type { Board } from '../../core/board';
import { runInWorker, type Started } from '../run';
import type { CarryReply, CarryRequest } from './protocol';

/** Weighs in a worker of its own how far a board's file carries. */
export function carryInWorker(board: Board): Started<CarryReply> {
  const worker = new Worker(new URL('./carry.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<CarryRequest, CarryReply>(
    worker,
    { board },
    () => {},
    'The worker that weighs what is known ended unexpectedly.',
  );
}
