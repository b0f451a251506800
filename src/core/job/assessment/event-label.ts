import type { Board } from '../../board';
import { eventDefinition, type JobEvent } from '../log';

/** One event in a few words, for undo and for the record. */
export const eventLabel = (board: Board, { body }: JobEvent): string =>
  body.kind === 'unreadable' ? 'an entry that cannot be read' : eventDefinition(body.kind)!.label(board, body);
