import type { Board } from '../board';
import { problemText } from '../result';
import { FIRST_ANSWERS } from './answers';
import { firstBoard } from './first-board';

/** The file that a job stands on while nobody has said which board it has. */
export const STAND_IN_ID = 'board-not-known';

/**
 * The commonest circuit round a port, all of it assumed, even that it is this one: what a job is reckoned with until its board is
 * chosen, sketched or imported.
 */
export function standInBoard(): Board {
  const board = firstBoard(STAND_IN_ID, { ...FIRST_ANSWERS, device: 'Board not known yet' });
  if (!board.ok) throw new Error(problemText(board.problems));
  return {
    ...board.value,
    name: 'the usual circuit round a port',
    assumed: [...(board.value.assumed ?? []), 'circuit'],
  };
}
